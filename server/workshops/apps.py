from django.apps import AppConfig


class WorkshopsConfig(AppConfig):
    name = "server.workshops"
    label = "workshops"
