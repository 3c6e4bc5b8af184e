import time


now = time.time  # entity: global-variable now eager language


# Near miss: nobody but a test ever replaces it.
def stamp():
    return now()  # near: coupling.hidden-dependency
