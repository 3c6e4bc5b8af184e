"""Depths by place."""


def depth(place):
    return len(place)
