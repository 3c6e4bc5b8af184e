// The checks of all families, for the table in assess.cpp.
#pragma once

#include <functional>

#include "assess/assess.h"
#include "base/text.h"

namespace elmcart {

void checkOpenConstructor(const Subject& subject, std::vector<Finding>& out);
void checkCopyable(const Subject& subject, std::vector<Finding>& out);
void checkReinitialised(const Subject& subject, std::vector<Finding>& out);
void checkReplaceable(const Subject& subject, std::vector<Finding>& out);
void checkCloneable(const Subject& subject, std::vector<Finding>& out);
void checkRevivable(const Subject& subject, std::vector<Finding>& out);
void checkSubclassable(const Subject& subject, std::vector<Finding>& out);
void checkMayReturnNothing(const Subject& subject, std::vector<Finding>& out);
void checkSlotShared(const Subject& subject, std::vector<Finding>& out);
void checkArgumentsIgnored(const Subject& subject, std::vector<Finding>& out);
void checkAwaitGap(const Subject& subject, std::vector<Finding>& out);
void checkSecondCreation(const Subject& subject, std::vector<Finding>& out);
void checkMeantSingle(const Subject& subject, std::vector<Finding>& out);

void checkOrderAcrossFiles(const Subject& subject, std::vector<Finding>& out);
void checkOrderWithinClass(const Subject& subject, std::vector<Finding>& out);
void checkEagerHeavy(const Subject& subject, std::vector<Finding>& out);
void checkEagerUnused(const Subject& subject, std::vector<Finding>& out);
void checkLazyNeedless(const Subject& subject, std::vector<Finding>& out);
void checkStartCycle(const Subject& subject, std::vector<Finding>& out);
void checkReentrant(const Subject& subject, std::vector<Finding>& out);
void checkNeedsSetup(const Subject& subject, std::vector<Finding>& out);
void checkMayThrow(const Subject& subject, std::vector<Finding>& out);
void checkFailureSwallowed(const Subject& subject, std::vector<Finding>& out);
void checkReadsEnvironment(const Subject& subject, std::vector<Finding>& out);

void checkUnguardedCreation(const Subject& subject, std::vector<Finding>& out);
void checkDoubleCheckUnsound(const Subject& subject, std::vector<Finding>& out);
void checkDoubleCheckIncomplete(const Subject& subject, std::vector<Finding>& out);
void checkWrongLock(const Subject& subject, std::vector<Finding>& out);
void checkLockEveryAccess(const Subject& subject, std::vector<Finding>& out);
void checkUnguardedState(const Subject& subject, std::vector<Finding>& out);
void checkMixedGuard(const Subject& subject, std::vector<Finding>& out);
void checkCheckThenAct(const Subject& subject, std::vector<Finding>& out);
void checkLeaksInternals(const Subject& subject, std::vector<Finding>& out);
void checkEscapingThis(const Subject& subject, std::vector<Finding>& out);
void checkLostUpdate(const Subject& subject, std::vector<Finding>& out);

void checkDanglingSubscriber(const Subject& subject, std::vector<Finding>& out);
void checkCopiedSubscriber(const Subject& subject, std::vector<Finding>& out);
void checkDuplicateSubscription(const Subject& subject, std::vector<Finding>& out);
void checkNotifyWhileChanging(const Subject& subject, std::vector<Finding>& out);
void checkGrowsForever(const Subject& subject, std::vector<Finding>& out);
void checkExitOrder(const Subject& subject, std::vector<Finding>& out);
void checkSubjectFirst(const Subject& subject, std::vector<Finding>& out);
void checkRawOwner(const Subject& subject, std::vector<Finding>& out);
void checkLocalAddressStored(const Subject& subject, std::vector<Finding>& out);
void checkCapturedShortLived(const Subject& subject, std::vector<Finding>& out);
// The part of the short-lived that is kept by a platform: listeners that are made and entered with each call.
void checkListenersLeft(const Subject& subject, std::vector<Finding>& out);
void checkUsedAfterTeardown(const Subject& subject, std::vector<Finding>& out);
void checkNeverReleased(const Subject& subject, std::vector<Finding>& out);

void checkHiddenDependency(const Subject& subject, std::vector<Finding>& out);
void checkWideReach(const Subject& subject, std::vector<Finding>& out);
void checkLayerBreach(const Subject& subject, std::vector<Finding>& out);
void checkTieCycle(const Subject& subject, std::vector<Finding>& out);
void checkFixedCollaborator(const Subject& subject, std::vector<Finding>& out);
// Is it worth a word who reaches the entity?
bool couples(const Subject& subject, const Entity& entity);
// Which consumers reach what changes in it: of a class of static members, those that call a member which touches that.
std::function<bool(const Consumer&)> whoCounts(const Subject& subject, const Entity& entity);
// Does it hold nothing but plain values that are set as they are handed in, by at most one class or file once the program runs?
bool isSetting(const Subject& subject, const Entity& entity);
// Does a finding tell already that the entity is reached from everywhere?
bool isToldAsWide(const Subject& subject, const Entity& entity);
void checkStaticOnlyApi(const Subject& subject, std::vector<Finding>& out);
void checkCrowdedStartup(const Subject& subject, std::vector<Finding>& out);
void checkLongHandoff(const Subject& subject, std::vector<Finding>& out);
void checkChainedAccess(const Subject& subject, std::vector<Finding>& out);
void checkTestLeak(const Subject& subject, std::vector<Finding>& out);

}  // namespace elmcart
