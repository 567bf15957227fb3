from django.apps import AppConfig


class PracticeConfig(AppConfig):
    name = "server.practice"
    label = "practice"
