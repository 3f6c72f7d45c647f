#include "app/steps/refine/hand/knife_tool.h"

#include <QPainter>

#include "app/widgets/counted.h"
#include "core/refine/edit/knife.h"

namespace rim::app {

std::optional<Point> KnifeTool::ruled(Point place) const {
  if (!adds()) return std::nullopt;
  return *from_ + toEighth(place - *from_);
}

void KnifeTool::finish() {
  const Point from = *from_;
  from_.reset();
  std::vector<refine::ByHand::One> changes;
  for (const refine::CutUp& cut : outlines_ ? refine::cutAlong(*outlines_, from, now_) : std::vector<refine::CutUp>{})
    changes.push_back(refine::madeByHand(markOf(outlines_->outlines[cut.outline]), cut.parts));
  if (changes.empty()) {
    said_ = tr("Nothing was cut: the line must cross an outline from border to border.");
  } else {
    said_ = tr("%1 cut.").arg(counted(changes.size(), tr("1 outline"), tr("%1 outlines")));
    make(tr("Cut through"), changes);
  }
  emit changed();
}

void KnifeTool::paint(QPainter& painter, const ToolView& view) const {
  if (from_) paintWay(painter, view, *from_, now_);
  if (snap_) paintSnap(painter, view, *snap_);
}

QString KnifeTool::chosenText() const {
  return from_ ? tr("%1 mm").arg(distance(*from_, now_) * mmPerPixel_, 0, 'f', 2) : QString();
}

QString KnifeTool::hint() const {
  if (from_) return tr("Let go, or click, beyond the other border; Shift keeps it level, upright or at 45°.");
  return said_.isEmpty() ? tr("Draw a line over what is to be in two.") : said_;
}

bool KnifeTool::leave() {
  said_.clear();
  return SpanTool::leave();
}

}  // namespace rim::app
