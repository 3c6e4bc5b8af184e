/* Shared by the office's C code. */
#ifndef OFFICE_H
#define OFFICE_H

struct berth {
    int number;
    char ship[32];
};

extern int tide_level;
int berth_of(const char *ship);

#endif
