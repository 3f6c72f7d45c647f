#include "app/steps/refine/hand/offset_tool.h"

#include <QRegularExpression>
#include <algorithm>
#include <cmath>

#include "core/geometry/path_place.h"
#include "core/geometry/point_in_polygon.h"

namespace rim::app {
namespace {

constexpr double kOffsetToleranceMm = 0.002;

/// The outlines that lie so far beside some others (mm). Those alone that are new.
Drawing besideThese(const Drawing& these, double mm, refine::Joins joins, const std::stop_token& stop) {
  const bool open = std::any_of(these.outlines.begin(), these.outlines.end(),
                                [](const Outline& outline) { return !outline.path().closed; });
  Drawing made = refine::offset(these, mm, joins, kOffsetToleranceMm, stop);
  if (open) made = refine::thickened(made, 2 * std::abs(mm), joins, refine::Tips::Round, kOffsetToleranceMm, stop);
  return made;
}

}  // namespace

void OffsetTool::setOutlines(std::shared_ptr<const Drawing> outlines, double mmPerPixel) {
  if (outlines != outlines_) leave();
  HandTool::setOutlines(std::move(outlines), mmPerPixel);
}

void OffsetTool::setJoins(refine::Joins joins) {
  joins_ = joins;
  work();
}

double OffsetTool::distanceMm() const {
  bool isNumber = false;
  const double typed = QString(typed_).replace(',', '.').toDouble(&isNumber);
  constexpr double kFarthestMm = 10'000;
  if (isNumber) return std::clamp(typed, -kFarthestMm, kFarthestMm);
  const Path& path = of_.front().path();
  const double off = nearestOn(path, now_).off * mmPerPixel_;
  return path.closed && PointInPolygon(path).has(now_) ? -off : off;
}

void OffsetTool::takeHold(OutlineId outline) {
  const Outline& first = outlines_->outlines[*placeOf(*outlines_, outline)];
  of_ = {first};
  if (chosen_.count(outline) == 0) return;
  for (const Outline& other : outlines_->outlines) {
    if (other.id != outline && chosen_.count(other.id) != 0) of_.push_back(other);
  }
}

void OffsetTool::press(Point place, const ToolView& view) {
  now_ = upright(place, view);
  down_ = true;
  if (of_.empty()) {
    const auto hit = outlines_ ? outlineAt(*outlines_, now_, view.reach(), true) : std::nullopt;
    if (!hit) return;
    takeHold(*hit);
    pressed_ = place;
    typed_.clear();
  }
  work();
}

void OffsetTool::move(Point place, const ToolView& view) {
  if (of_.empty() || finishing_) return;
  now_ = upright(place, view);
  work();
}

/// Dragged, it is done; a click alone waits for the second one.
void OffsetTool::release(Point place, const ToolView& view) {
  if (!down_) return;
  down_ = false;
  move(place, view);
  if (!of_.empty() && isDrag(pressed_, place, view)) finish();
}

/// Beside the window, as a large outline takes longer than the pointer does.
void OffsetTool::work() {
  if (of_.empty()) return;
  const double mm = distanceMm();
  emit changed();
  if (mm == workedMm_ && (errand_.running() || !beside_.empty())) return;
  workedMm_ = mm;
  trouble_.clear();
  beside_.clear();
  Drawing these;
  these.outlines = of_;
  these.frame = Frame::Pixels;
  const double k = mmPerPixel_;
  errand_.begin(
      this,
      [these, mm, k, joins = joins_](const std::stop_token& stop) {
        if (mm == 0) return Drawing{};
        return inFrame(besideThese(inFrame(these, Frame::Millimetres, k), mm, joins, stop), Frame::Pixels, 1 / k);
      },
      [this](Outcome<Drawing> outcome) { take(std::move(outcome)); });
}

void OffsetTool::take(Outcome<Drawing> outcome) {
  trouble_ = outcome.trouble;
  for (const Outline& outline : outcome.result.outlines) beside_.push_back(outline.path());
  if (trouble_.isEmpty() && beside_.empty() && workedMm_ < 0) trouble_ = tr("Nothing is left so far inside.");
  if (finishing_) finish();
  emit changed();
}

void OffsetTool::finish() {
  finishing_ = errand_.running();
  if (finishing_ || of_.empty()) return;
  if (beside_.empty()) {
    emit refused(trouble_.isEmpty() ? tr("Drag farther: it lies on the outline.") : trouble_);
    leave();
    return;
  }
  std::vector<refine::ByHand::One> changes;
  if (instead_) {
    changes.push_back(refine::madeByHand(markOf(of_.front()), beside_));
    for (std::size_t i = 1; i < of_.size(); ++i) changes.push_back(refine::madeByHand(markOf(of_[i]), {}));
  } else {
    changes.push_back(refine::madeByHand({}, beside_, of_.front().layer));
  }
  const QString name = tr("Offset by %1 mm").arg(workedMm_, 0, 'f', 2);
  leave();
  make(name, changes);
}

bool OffsetTool::type(const QString& text, int key) {
  if (of_.empty()) return false;
  static const QRegularExpression allowed("^[0-9.,-]$");
  if (isReturn(key)) {
    finish();
  } else if (typeInto(typed_, text, key, allowed)) {
    work();
  } else {
    return false;
  }
  return true;
}

void OffsetTool::paint(QPainter& painter, const ToolView& view) const {
  std::vector<Path> held;
  for (const Outline& outline : of_) held.push_back(outline.path());
  paintOver(painter, view, held);
  paintOver(painter, view, beside_);
}

QString OffsetTool::chosenText() const { return of_.empty() ? QString() : tr("%1 mm").arg(distanceMm(), 0, 'f', 2); }

QString OffsetTool::hint() const {
  if (of_.empty()) return tr("Drag from an outline to the outside or the inside, or click it and then again.");
  if (!trouble_.isEmpty()) return trouble_;
  if (!typed_.isEmpty()) return tr("%1 mm: Return takes it.").arg(typed_);
  return tr("%1 mm. Type another distance, - for inside, and Return, or click.").arg(distanceMm(), 0, 'f', 2);
}

bool OffsetTool::leave() {
  errand_.leave();
  const bool held = !of_.empty();
  of_.clear();
  beside_.clear();
  typed_.clear();
  trouble_.clear();
  down_ = finishing_ = false;
  if (held) emit changed();
  return held;
}

}  // namespace rim::app
