# What a constructor puts into the object's own dictionary is no state of the class.
class View:
    layers = None
    listeners = []  # entity: static-field listeners eager language

    def __init__(self, *layers):
        self.__dict__.update(layers=list(layers), changes=layers[0])

    def push(self, layer):
        self.layers.insert(0, layer)

    def bind(self, listener):
        self.listeners.append(listener)  # finding: lifetime.grows-forever


def first(view):
    return view.layers[0]
