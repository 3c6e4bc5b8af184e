"""The number of the next ticket, shared by all windows."""

next_ticket = 0


def take_ticket():
    global next_ticket
    next_ticket += 1
    return next_ticket
