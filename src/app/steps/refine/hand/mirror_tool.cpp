#include "app/steps/refine/hand/mirror_tool.h"

#include <QApplication>
#include <QPainter>
#include <cmath>

#include "core/geometry/affine.h"

namespace rim::app {
namespace {

constexpr double kMirrorToleranceMm = 0.001;  // says nothing: circles stay circles when they are mirrored

}  // namespace

std::optional<Point> MirrorTool::ruled(Point place) const {
  if (!adds()) return std::nullopt;
  return *from_ + toEighth(place - *from_);
}

std::vector<std::pair<Outline, Path>> MirrorTool::mirrored() const {
  std::vector<std::pair<Outline, Path>> all;
  if (!from_ || !outlines_ || distance(*from_, now_) == 0) return all;
  const Point way = now_ - *from_;
  const Affine map = mirrorAbout(*from_, std::atan2(way.y, way.x));
  for (const Outline& outline : outlines_->outlines) {
    // Mirrored, borders would run the other way round.
    if (chosen_.contains(outline.id))
      all.emplace_back(outline, reversed(transformed(outline.path(), map, kMirrorToleranceMm / mmPerPixel_)));
  }
  return all;
}

void MirrorTool::finish() {
  const auto all = mirrored();
  if (all.empty()) {
    from_.reset();
    emit refused(tr("Choose outlines first, then draw the line that they are mirrored across."));
    emit changed();
    return;
  }
  const bool themselves = (QApplication::keyboardModifiers() & Qt::ControlModifier) != 0;
  std::vector<refine::ByHand::One> changes;
  for (const auto& [outline, path] : all)
    changes.push_back(themselves ? refine::madeByHand(markOf(outline), {path})
                                 : refine::madeByHand({}, {path}, outline.layer));
  from_.reset();
  if (themselves) {
    make(tr("Mirror"), changes);
  } else {
    emit copied(changes);
  }
  emit changed();
}

void MirrorTool::paint(QPainter& painter, const ToolView& view) const {
  if (from_) {
    std::vector<Path> paths;
    for (const auto& [outline, path] : mirrored()) paths.push_back(path);
    paintOver(painter, view, paths);
    paintWay(painter, view, *from_, now_, Qt::DashDotLine);
  }
  if (snap_) paintSnap(painter, view, *snap_);
}

QString MirrorTool::chosenText() const {
  if (!from_) return {};
  const Point way = now_ - *from_;
  constexpr double kDegrees = 180 / M_PI;
  return tr("at %1°").arg(std::atan2(way.y, way.x) * kDegrees, 0, 'f', 1);
}

QString MirrorTool::hint() const {
  if (chosen_.empty()) return tr("Choose outlines first (5), then come back.");
  if (!from_) return tr("Draw the line that what is chosen is mirrored across.");
  return tr("Let go for a copy, with Ctrl they go there themselves; Shift keeps the line level, upright or at 45°.");
}

}  // namespace rim::app
