from django.apps import AppConfig


class SearchesConfig(AppConfig):
    name = "server.searches"
    label = "searches"
