#include "app/steps/refine/hand/trim_tool.h"

namespace rim::app {

void TrimTool::setOutlines(std::shared_ptr<const Drawing> outlines, double mmPerPixel) {
  if (outlines != outlines_) {
    lit_.reset();
    meetings_.clear();
  }
  HandTool::setOutlines(std::move(outlines), mmPerPixel);
}

std::optional<TrimTool::Lit> TrimTool::litAt(Point place, double reach) {
  const auto id = outlines_ ? outlineAt(*outlines_, place, reach, false) : std::nullopt;
  if (!id) return std::nullopt;
  const std::size_t outline = *placeOf(*outlines_, *id);
  auto known = meetings_.find(outline);
  if (known == meetings_.end()) known = meetings_.emplace(outline, refine::meetingPlaces(*outlines_, outline)).first;
  const Path& path = outlines_->path(outline);
  return Lit{outline, refine::trimmedAt(path, known->second, nearestOn(path, place))};
}

void TrimTool::move(Point place, const ToolView& view) {
  lit_ = litAt(upright(place, view), view.reach());
  emit changed();
}

void TrimTool::press(Point place, const ToolView& view) {
  move(place, view);
  if (!lit_) return;
  if (lit_->trimmed.left.empty() && outlines_->outlines.size() == 1) {
    emit refused(tr("That would leave no outline at all."));
    return;
  }
  const OutlineMark mark = markOf(outlines_->outlines[lit_->outline]);
  const std::vector<Path> left = std::move(lit_->trimmed.left);
  lit_.reset();
  make(tr("Trim"), {refine::madeByHand(mark, left)});
  emit changed();
}

void TrimTool::paint(QPainter& painter, const ToolView& view) const {
  if (lit_) paintOver(painter, view, {lit_->trimmed.taken});
}

QString TrimTool::hint() const {
  if (!lit_) return tr("Point at a piece between two crossings: a click takes it out.");
  if (lit_->trimmed.left.empty()) return tr("Nothing crosses it: a click takes out the whole outline.");
  return tr("A click takes out what is lit.");
}

bool TrimTool::leave() {
  if (!lit_) return false;
  lit_.reset();
  emit changed();
  return true;
}

}  // namespace rim::app
