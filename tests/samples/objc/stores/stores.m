#import "stores.h"

int stores = 0;  // entity: global-variable stores eager language
int a = 0;  // entity: global-variable a eager language

void count(void) {
    a = a + 1;
    stores = stores + 1;
}
