#include "app/steps/refine/hand/snapping.h"

#include <QCoreApplication>
#include <QPainter>

#include "app/bench/bench_tool.h"
#include "app/bench/furniture.h"
#include "app/look.h"

namespace rim::app {

void Snapping::want(refine::SnapTo to, bool wanted) {
  if (wanted) {
    wanted_.insert(to);
  } else {
    wanted_.erase(to);
  }
}

std::optional<refine::Snapped> Snapping::snapped(const std::shared_ptr<const Drawing>& drawing, Point place,
                                                 double reach, const std::set<OutlineId>& without,
                                                 const std::optional<Point>& from) const {
  if (!on_ || !drawing) return std::nullopt;
  if (drawing != of_) {
    of_ = drawing;
    index_ = std::make_unique<const refine::SnapIndex>(*drawing);
  }
  refine::SnapAids aids = aids_;
  aids.from = from;
  return index_->at(place, reach, wanted_, without, aids);
}

QString snapWord(refine::SnapTo to) {
  const auto text = [](const char* word) { return QCoreApplication::translate("Snapping", word); };
  switch (to) {
    case refine::SnapTo::Node:
      return text("node");
    case refine::SnapTo::Crossing:
      return text("crossing");
    case refine::SnapTo::Quadrant:
      return text("quadrant");
    case refine::SnapTo::Tangent:
      return text("touches");
    case refine::SnapTo::Guide:
      return text("guide");
    case refine::SnapTo::Grid:
      return text("grid");
    case refine::SnapTo::Middle:
      return text("middle");
    case refine::SnapTo::Centre:
      return text("centre");
    case refine::SnapTo::Line:
      return text("on the line");
  }
  return {};
}

void paintSnap(QPainter& painter, const ToolView& view, const refine::Snapped& snap) {
  constexpr double kRing = 7;
  const QPointF at = view.viewport.toScreen(snap.place);
  painter.setBrush(Qt::NoBrush);
  for (const auto& [colour, width] : {std::pair(QColor(Qt::white), 4.0), std::pair(look().accent, 2.0)}) {
    painter.setPen(QPen(colour, width));
    painter.drawEllipse(at, kRing, kRing);
  }
  paintWords(painter, at + QPointF(12, -26), snapWord(snap.to));
}

}  // namespace rim::app
