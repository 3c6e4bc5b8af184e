// One book of berths for the whole office.
#import <Foundation/Foundation.h>

NS_ASSUME_NONNULL_BEGIN

@protocol HOBook <NSObject>
- (NSInteger)count;
@end

@interface HOBerthBook : NSObject <HOBook>  // entity: singleton HOBerthBook lazy once

@property (nonatomic, strong) NSMutableDictionary<NSString *, NSNumber *> *berths;

+ (instancetype)sharedBook;
- (void)assign:(NSString *)ship toBerth:(NSInteger)berth;

@end

@interface HOPilotRoster : NSObject  // entity: singleton HOPilotRoster lazy none
@property (nonatomic, strong, readonly) NSMutableArray *pilots;
+ (HOPilotRoster *)roster;
- (void)add:(NSString *)pilot;
@end

@interface HOTickets : NSObject  // entity: static-holder HOTickets eager language
+ (NSInteger)draw;
@end

NS_ASSUME_NONNULL_END
