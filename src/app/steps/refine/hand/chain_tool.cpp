#include "app/steps/refine/hand/chain_tool.h"

#include <QPainter>
#include <QRegularExpression>
#include <cmath>

#include "app/steps/refine/hand/typed_way.h"
#include "core/geometry/arc.h"

namespace rim::app {

void ChainTool::setArc(bool arc) {
  arc_ = arc;
  places_.clear();
  SpanTool::leave();
  emit changed();
}

void ChainTool::begun() {
  places_ = {*from_};
  typed_.clear();
}

void ChainTool::press(Point place, const ToolView& view) {
  reach_ = view.reach();
  SpanTool::press(place, view);
}

/// What was typed, or the first place, where the pointer comes near it.
std::optional<Point> ChainTool::ruled(Point place) const {
  if (const auto way = typedWay(typed_, (place - *from_) * mmPerPixel_)) return *from_ + *way * (1 / mmPerPixel_);
  const bool closes = !arc_ && places_.size() > 2 && distance(place, places_.front()) <= reach_;
  return closes ? std::optional(places_.front()) : std::nullopt;
}

Path ChainTool::pathWith(Point last) const {
  Path path{places_.front(), {}, false};
  if (arc_ && places_.size() == 2) {
    path.segments.push_back(Segment::arc(last, bulgeThrough(places_[0], places_[1], last)));
    return path;
  }
  for (std::size_t i = 1; i < places_.size(); ++i) path.segments.push_back(Segment::line(places_[i]));
  if (!(last == places_.back())) path.segments.push_back(Segment::line(last));
  path.closed = places_.size() > 2 && last == places_.front();
  return path;
}

void ChainTool::finish() {
  if (now_ == places_.back()) return;
  const bool whole = arc_ ? places_.size() == 2 : places_.size() > 2 && now_ == places_.front();
  if (whole) return end(true);
  places_.push_back(now_);
  from_ = now_;
  typed_.clear();
  emit changed();
}

void ChainTool::end(bool withLast) {
  if (places_.empty()) return;
  const Path path = pathWith(withLast ? now_ : places_.back());
  places_.clear();
  typed_.clear();
  from_.reset();
  // An arc through fewer than three places is none.
  if (!path.segments.empty() && (!arc_ || withLast)) emit drawn(path);
  emit changed();
}

void ChainTool::doublePress(Point place, const ToolView& view) {
  if (arc_ || places_.size() < 2) return press(place, view);
  end(false);
}

bool ChainTool::type(const QString& text, int key) {
  if (!from_) return false;
  static const QRegularExpression allowed("^[0-9.,<-]$");
  if (isReturn(key)) {
    if (typed_.isEmpty()) {
      end(false);
    } else if (const auto place = ruled(now_)) {
      now_ = *place;
      finish();
    }
  } else if (!typeInto(typed_, text, key, allowed)) {
    return false;
  }
  emit changed();
  return true;
}

/// Takes back one place after the other.
bool ChainTool::leave() {
  if (places_.size() < 2) {
    places_.clear();
    return SpanTool::leave();
  }
  places_.pop_back();
  from_ = places_.back();
  typed_.clear();
  emit changed();
  return true;
}

void ChainTool::paint(QPainter& painter, const ToolView& view) const {
  if (from_ && !places_.empty()) paintOver(painter, view, {pathWith(ruled(now_).value_or(now_))});
  if (snap_) paintSnap(painter, view, *snap_);
}

QString ChainTool::chosenText() const {
  if (!from_) return {};
  const Point way = (ruled(now_).value_or(now_) - *from_) * mmPerPixel_;
  constexpr double kDegrees = 180 / M_PI;
  return tr("%1 mm, %2°").arg(length(way), 0, 'f', 2).arg(std::atan2(way.y, way.x) * kDegrees, 0, 'f', 1);
}

QString ChainTool::hint() const {
  if (!from_) return arc_ ? tr("Click where the arc begins.") : tr("Click where the lines begin.");
  if (!typed_.isEmpty()) return tr("%1 mm: Return takes it.").arg(typed_);
  if (arc_)
    return places_.size() == 1 ? tr("Click a place that the arc runs through.") : tr("Click where the arc ends.");
  return places_.size() > 2 ? tr("Click on; the first place closes it, Return leaves it open.")
                            : tr("Click on, or type a length or a length and an angle, as 40<30, and Return.");
}

}  // namespace rim::app
