#pragma once

#include <memory>
#include <vector>

#include "app/steps/step_room.h"

namespace rim::app {

/// The steps of the work, in the order of the job card.
enum class Step { Picture, Colours, Trace, Mend, Refine, Export };

/// A room for each of them, in that order.
std::vector<std::unique_ptr<StepRoom>> makeRooms(const Workplace& at);

}  // namespace rim::app
