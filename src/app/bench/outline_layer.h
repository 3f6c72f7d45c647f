#pragma once

#include <QPainterPath>
#include <vector>

#include "app/bench/node_marks.h"
#include "app/bench/viewport.h"
#include "core/drawing/drawing.h"
#include "core/geometry/paths.h"
#include "core/trace/contour/border.h"

class QPainter;

namespace rim::app {

/// Outlines as they are drawn on the bench, in upright pixels: closed ones softly filled, outer
/// borders, holes, open outlines and lines of a pen each with their own colour and stroke pattern.
class OutlineLayer {
 public:
  OutlineLayer() = default;
  /// Fitted outlines.
  explicit OutlineLayer(const Paths& outlines);
  /// The same; lines that a pen drew have its stroke round them as a soft band.
  explicit OutlineLayer(const Drawing& drawing);
  /// Borders that are not fitted yet, with as few points as lie within `tolerancePx` picture pixels of all of them.
  OutlineLayer(const std::vector<trace::contour::Border>& borders, double tolerancePx);

  bool empty() const { return strokes_.empty(); }
  bool hasPenLines() const;
  /// Lines and curves in all, as a measure of what painting costs.
  std::size_t elements() const { return elements_; }
  /// Of those strokes that reach into a box, upright px.
  std::size_t elementsWithin(const QRectF& box) const;
  /// Into how many parts painting is parted, none of which takes long; they are painted in their order.
  std::size_t parts() const;
  /// All parts.
  void paint(QPainter& painter, const Viewport& viewport, const QRectF& visible, bool filled = true) const;
  /// `filled` false: strokes alone, where something else shows what is enclosed.
  void paint(QPainter& painter, const Viewport& viewport, const QRectF& visible, bool filled, std::size_t part) const;

  /// Strokes alone, broad and grey: a reference copy under the outlines.
  void paintAsReference(QPainter& painter, const Viewport& viewport, const QRectF& visible, std::size_t part) const;

  /// Strokes alone, as a repair would make them, over the outlines.
  void paintAsPreview(QPainter& painter, const Viewport& viewport, const QRectF& visible) const;

  /// The same for outlines that a repair would take away: they fade.
  void paintAsGone(QPainter& painter, const Viewport& viewport, const QRectF& visible) const;

  /// Nodes in sight: a chevron along both sides of a corner, a bar along the tangent of a smooth
  /// node, a tick across where an outline starts. Returns false, and draws none, when there are
  /// more in sight than could be told apart.
  bool paintNodes(QPainter& painter, const Viewport& viewport, const QRectF& visible) const;

 private:
  enum Role { kBorder, kHole, kOpen, kPenLine, kRoles };
  struct Stroke {
    QPainterPath path;
    QRectF box;
    Role role;
    double penWidth = 0;  ///< upright px
  };
  /// A border with its holes, filled together even-odd. Filling all outlines of a drawing as one path takes several
  /// times as long.
  struct Fill {
    QPainterPath path;
    QRectF box;
  };
  /// Some of a list: those that belong to a part.
  struct Some {
    std::size_t from, to;
  };
  static Some someOf(std::size_t count, std::size_t part);
  std::size_t fillParts() const;
  std::size_t strokeParts() const;
  void paintStrokes(QPainter& painter, const Viewport& viewport, const QRectF& visible, const QPen& pen,
                    Some some) const;
  void addStroke(const QPainterPath& path, Role role, double penWidth = 0);
  static QPainterPath drawnOf(const Path& path);
  void addNodes(const Path& path);
  void addClosed(QPainterPath path, bool hole);

  std::vector<Stroke> strokes_;
  std::vector<Fill> fills_;
  std::vector<NodeMark> nodes_;
  std::size_t elements_ = 0;
};

/// How outer borders, holes, open outlines and lines of a pen are drawn; for the legend too.
QPen borderPen();
QPen holePen();
QPen openPen();
QPen penLinePen();

}  // namespace rim::app
