#pragma once

#include <QObject>
#include <memory>

#include "core/refine/edit/snap.h"

class QPainter;

namespace rim::app {

struct ToolView;

/// What places are brought to while something is drawn, dragged or measured; each can be switched off.
class Snapping : public QObject {
  Q_OBJECT

 public:
  using QObject::QObject;

  bool on() const { return on_; }
  void setOn(bool on) { on_ = on; }
  bool wants(refine::SnapTo to) const { return wanted_.count(to) != 0; }
  void want(refine::SnapTo to, bool wanted);

  /// The guides and the distance of a grid's lines (0: none), upright px.
  void setAids(std::vector<Guide> guides, double grid) { aids_ = {std::move(guides), grid, {}}; }

  /// The place that another one (upright px) is brought to; none: it stays. `from`: where a line to it comes from.
  std::optional<refine::Snapped> snapped(const std::shared_ptr<const Drawing>& drawing, Point place, double reach,
                                         const std::set<OutlineId>& without = {},
                                         const std::optional<Point>& from = {}) const;

 private:
  /// What the drawing that was asked for last can be snapped to: a pointer moves over one for a long while.
  mutable std::shared_ptr<const Drawing> of_;
  mutable std::unique_ptr<const refine::SnapIndex> index_;
  refine::SnapAids aids_;
  bool on_ = true;
  std::set<refine::SnapTo> wanted_{refine::SnapTo::Node,    refine::SnapTo::Crossing, refine::SnapTo::Quadrant,
                                   refine::SnapTo::Tangent, refine::SnapTo::Middle,   refine::SnapTo::Centre,
                                   refine::SnapTo::Guide,   refine::SnapTo::Line,     refine::SnapTo::Grid};
};

/// "node", "middle", …
QString snapWord(refine::SnapTo to);

/// Marks the place with a ring and the word.
void paintSnap(QPainter& painter, const ToolView& view, const refine::Snapped& snap);

}  // namespace rim::app
