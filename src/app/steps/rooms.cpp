#include "app/steps/rooms.h"

#include "app/steps/colours/colours_room.h"
#include "app/steps/export/export_room.h"
#include "app/steps/mend/mend_room.h"
#include "app/steps/picture/picture_room.h"
#include "app/steps/refine/refine_room.h"
#include "app/steps/trace/trace_room.h"

namespace rim::app {

std::vector<std::unique_ptr<StepRoom>> makeRooms(const Workplace& at) {
  std::vector<std::unique_ptr<StepRoom>> rooms;
  rooms.push_back(std::make_unique<PictureRoom>(at));
  rooms.push_back(std::make_unique<ColoursRoom>(at));
  rooms.push_back(std::make_unique<TraceRoom>(at));
  rooms.push_back(std::make_unique<MendRoom>(at));
  rooms.push_back(std::make_unique<RefineRoom>(at));
  rooms.push_back(std::make_unique<ExportRoom>(at));
  return rooms;
}

}  // namespace rim::app
