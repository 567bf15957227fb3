from django.apps import AppConfig


class BuildsConfig(AppConfig):
    name = "server.builds"
