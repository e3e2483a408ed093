import os
from contextlib import suppress
from typing import Any

from devices.simulated_thermometer import arguments, start
from django.core.management.base import BaseCommand, CommandError, CommandParser


class Command(BaseCommand):
    help = "Run a simulated thermometer beside Ravska; docs/thermometer.md says how a real one connects."
    requires_system_checks = ()

    def add_arguments(self, parser: CommandParser) -> None:
        arguments(parser)
        parser.set_defaults(token=os.environ.get("RAVSKA_DEVICE_TOKEN", ""))

    def handle(self, *args: object, **options: Any) -> None:
        if not options["token"]:
            raise CommandError("Make a token at the fire's probes, and give it by --token or RAVSKA_DEVICE_TOKEN.")
        self.stdout.write(f"The thermometer streams to {options['server']} (Ctrl+C ends it)")
        with suppress(KeyboardInterrupt):
            start(options)
