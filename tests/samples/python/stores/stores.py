"""Stores of the harbour: tables that are filled where they stand."""

GROUPS = {}  # entity: global-variable GROUPS eager language

_TIDES = "tides"  # harmless: _TIDES
