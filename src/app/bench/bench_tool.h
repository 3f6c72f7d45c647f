#pragma once

#include <QObject>

#include "app/bench/viewport.h"

class QPainter;

namespace rim::app {

/// How a tool's places come to the screen: *picture pixels* of the picture on the bench, origin at
/// its upper left corner, y down.
struct ToolView {
  Viewport viewport;
  double pictureHeight = 0;

  QPointF toScreen(Point p) const { return viewport.toScreen({p.x, pictureHeight - p.y}); }
  Point toPicture(QPointF screen) const {
    const Point p = viewport.toPicture(screen);
    return {p.x, pictureHeight - p.y};
  }
  /// Picture pixels that a handle can be taken hold of from.
  double reach() const { return 11 / viewport.scale; }
};

/// Something that is done to the picture with the pointer. It draws itself over the bench and says
/// what came of it; it changes nothing itself.
class BenchTool : public QObject {
  Q_OBJECT

 public:
  using QObject::QObject;
  virtual void paint(QPainter& painter, const ToolView& view) const = 0;
  virtual void press(Point place, const ToolView& view) = 0;
  virtual void move(Point place, const ToolView& view) = 0;
  virtual void release(Point place, const ToolView& view) = 0;
  /// The second press of two that follow each other at once.
  virtual void doublePress(Point place, const ToolView& view) { press(place, view); }

  /// The second button: what lies there is what the menu is about that follows.
  virtual void pressForMenu(Point /*place*/, const ToolView& /*view*/) {}

  /// Whether the outlines show under it; else the picture alone does.
  virtual bool overOutlines() const { return false; }

  /// Moves what is chosen by a step in picture pixels, as the arrow keys ask; false: the tool has nothing to move.
  virtual bool nudge(Point /*step*/) { return false; }
  /// Chooses the next thing that nudge() moves; false: there is nothing to choose between.
  virtual bool chooseNext() { return false; }
  /// What nudge() moves and where it is, in words; empty when there is nothing.
  virtual QString chosenText() const { return {}; }

  /// Whether keys are typed into the tool at this moment, before they mean anything else.
  virtual bool takesTyping() const { return false; }
  /// A key that is typed into it; false: it means nothing there.
  virtual bool type(const QString& /*text*/, int /*key*/) { return false; }
  /// What to do next, or what came of the last thing, in one line at the foot of the bench; empty: nothing.
  virtual QString hint() const { return {}; }
  /// The pointer over the bench.
  virtual Qt::CursorShape cursor() const { return Qt::ArrowCursor; }
  /// Lets go of one thing after the other, as Esc asks; false: there is nothing to let go of.
  virtual bool leave() { return false; }

 signals:
  void changed();
};

}  // namespace rim::app
