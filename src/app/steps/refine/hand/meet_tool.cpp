#include "app/steps/refine/hand/meet_tool.h"

#include <QApplication>
#include <QPainter>

#include "app/look.h"

namespace rim::app {
namespace {

bool straight() { return (QApplication::keyboardModifiers() & Qt::ControlModifier) != 0; }

}  // namespace

void MeetTool::setOutlines(std::shared_ptr<const Drawing> outlines, double mmPerPixel) {
  if (outlines != outlines_) first_ = over_ = std::nullopt;
  HandTool::setOutlines(std::move(outlines), mmPerPixel);
}

std::vector<MeetTool::OpenEnd> MeetTool::ends() const {
  std::vector<OpenEnd> all;
  for (const Outline& outline : outlines_ ? outlines_->outlines : std::vector<Outline>{}) {
    if (outline.path().closed || outline.path().segments.empty()) continue;
    for (const auto end : {refine::PathEnd::Start, refine::PathEnd::End})
      all.push_back({outline.id, end, refine::placeOf(outline.path(), end)});
  }
  return all;
}

std::optional<MeetTool::OpenEnd> MeetTool::endAt(Point place, double reach) const {
  std::optional<OpenEnd> best;
  for (const OpenEnd& end : ends()) {
    const double off = distance(end.place, place);
    if (off > reach || (first_ && end == *first_)) continue;
    reach = off;
    best = end;
  }
  return best;
}

std::optional<Path> MeetTool::together(const OpenEnd& a, const OpenEnd& b) const {
  const auto first = placeOf(*outlines_, a.outline);
  const auto second = placeOf(*outlines_, b.outline);
  if (!first || !second) return std::nullopt;
  const Path& one = outlines_->path(*first);
  const Path& other = outlines_->path(*second);
  const double closeBy = kTogetherMm / mmPerPixel_;
  if (a.outline == b.outline) return straight() ? refine::closedUp(one, closeBy) : refine::metItself(one);
  return straight() ? refine::joined(one, a.end, other, b.end, closeBy) : refine::met(one, a.end, other, b.end);
}

void MeetTool::take(const OpenEnd& a, const OpenEnd& b) {
  auto path = together(a, b);
  if (!path) return;
  const auto mark = [this](OutlineId id) { return markOf(outlines_->outlines[*placeOf(*outlines_, id)]); };
  std::vector<refine::ByHand::One> changes{refine::madeByHand(mark(a.outline), {std::move(*path)})};
  if (a.outline != b.outline) changes.push_back(refine::madeByHand(mark(b.outline), {}));
  first_ = over_ = std::nullopt;
  make(tr("Let ends meet"), changes);
  emit changed();
}

void MeetTool::press(Point place, const ToolView& view) {
  const auto end = endAt(upright(place, view), view.reach());
  if (!end) return;
  if (first_) {
    take(*first_, *end);
  } else {
    first_ = end;
  }
  emit changed();
}

void MeetTool::move(Point place, const ToolView& view) {
  over_ = endAt(upright(place, view), view.reach());
  emit changed();
}

bool MeetTool::chooseNext() {
  const std::vector<OpenEnd> all = ends();
  if (all.empty()) return false;
  const auto now = first_ ? std::find(all.begin(), all.end(), *first_) : all.end();
  first_ = now == all.end() || std::next(now) == all.end() ? all.front() : *std::next(now);
  emit changed();
  return true;
}

void MeetTool::paint(QPainter& painter, const ToolView& view) const {
  constexpr double kRing = 9;
  painter.setBrush(Qt::NoBrush);
  const std::vector<OpenEnd> all = ends();
  for (const OpenEnd& end : all) {
    const bool bold = (first_ && end == *first_) || (over_ && end == *over_);
    for (const auto& [colour, width] :
         {std::pair(QColor(Qt::white), bold ? 6.0 : 4.0), std::pair(look().open, bold ? 3.5 : 1.8)}) {
      painter.setPen(QPen(colour, width));
      painter.drawEllipse(view.viewport.toScreen(end.place), kRing, kRing);
    }
  }
  if (!first_ || !over_) return;
  if (const auto path = together(*first_, *over_)) paintOver(painter, view, {*path});
}

QString MeetTool::chosenText() const { return first_ ? tr("one end chosen") : QString(); }

QString MeetTool::hint() const {
  if (ends().empty()) return tr("Nothing is open here: no end has to meet another.");
  if (!first_) return tr("Click the first of two open ends.");
  if (over_) return tr("A click takes it; with Ctrl a straight line goes between.");
  return tr("Now point at the other end.");
}

bool MeetTool::leave() {
  if (!first_) return false;
  first_.reset();
  emit changed();
  return true;
}

}  // namespace rim::app
