#pragma once
// The ways of delivery: what each makes of the groups of a plan, which hold pieces and their textures by source. Errors stand in the
// groups.
#include "workflow/delivery_plan.h"

namespace skivet {

/// A group's pieces and changes as one list, for its source as it is now.
[[nodiscard]] Result<std::vector<AddressedChange>> changes_of(const ReadContext& context, const Container& source,
                                                              const DeliveryGroup& group);

void plan_into_archives(const ReadContext& context, const Project& project, std::vector<DeliveryGroup>& groups);
/// One new archive for each source, and the game's list with them in it, as a group of its own.
void plan_patches(const ReadContext& context, const Project& project, std::vector<DeliveryGroup>& groups);
/// One group for the override folder, and those that cannot go there.
void plan_loose(const ReadContext& context, const Project& project, std::vector<DeliveryGroup>& groups);
/// One group for the device, and those that cannot go there. Whole files are copied to it once, with everything their archive lies in, and
/// are changed there afterwards.
void plan_device(const ReadContext& context, const Project& project, std::vector<DeliveryGroup>& groups);

}  // namespace skivet
