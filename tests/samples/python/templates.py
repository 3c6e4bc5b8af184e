"""What stands in a class for one of each object, and classes that each call makes."""

import gi


class Panel(gi.Box):
    title = gi.Property(type=str)  # harmless: title
    entry = gi.Template.Child()  # harmless: entry
    opened = gi.Signal()  # harmless: opened

    def open(self):
        self.entry.set_text(self.title)
        self.opened.emit()


class SidePanel(Panel):
    opened = Panel.open  # harmless: opened

    def show(self):
        self.opened()


def once(message):
    class Once:
        told = False

        def tell(self):
            if not Once.told:
                Once.told = True
                print(message)

    return Once
