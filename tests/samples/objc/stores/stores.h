// Stores of the harbour: what a file keeps to itself without saying so.
#import <Foundation/Foundation.h>

extern int stores;
