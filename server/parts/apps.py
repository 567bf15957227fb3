from django.apps import AppConfig


class PartsConfig(AppConfig):
    name = "server.parts"
    label = "parts"
