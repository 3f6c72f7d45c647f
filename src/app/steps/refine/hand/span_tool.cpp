#include "app/steps/refine/hand/span_tool.h"

#include <cmath>
#include <numbers>

namespace rim::app {

Point SpanTool::toEighth(Point way) {
  constexpr double kEighth = std::numbers::pi / 4;
  const double angle = std::round(std::atan2(way.y, way.x) / kEighth) * kEighth;
  const Point along{std::cos(angle), std::sin(angle)};
  return along * dot(way, along);
}

void SpanTool::press(Point place, const ToolView& view) {
  move(place, view);
  down_ = true;
  again_ = from_.has_value();
  if (!from_) {
    from_ = now_;
    pressed_ = place;
    begun();
  }
  emit changed();
}

void SpanTool::move(Point place, const ToolView& view) {
  now_ = upright(place, view);
  const auto wanted = from_ ? ruled(now_) : std::nullopt;
  snap_ = outlines_ && !wanted ? snapping_.snapped(around(), now_, view.reach(), {}, from_) : std::nullopt;
  if (wanted) now_ = *wanted;
  if (snap_) now_ = snap_->place;
  emit changed();
}

/// Dragged, it is done; a click alone waits for the second one.
void SpanTool::release(Point place, const ToolView& view) {
  if (!down_) return;
  down_ = false;
  move(place, view);
  if (again_ || isDrag(pressed_, place, view)) finish();
}

bool SpanTool::leave() {
  if (!from_) return false;
  from_.reset();
  down_ = false;
  emit changed();
  return true;
}

}  // namespace rim::app
