from django.apps import AppConfig


class BookConfig(AppConfig):
    name = "book"
    verbose_name = "The household's book"
