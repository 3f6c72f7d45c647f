#pragma once

#include <QColor>
#include <QPainter>
#include <QPixmap>
#include <functional>
#include <vector>

#include "app/bench/viewport.h"

namespace rim::app {

/// What the bench shows and the pointer does not move: picture and outlines, painted once and kept. Another part or
/// another size of it is shown from what is kept, moved and stretched, until it is painted anew, which may be done
/// in many small turns, so that the hand never waits for it.
class Scene {
 public:
  /// Paints a part; `visible` in screen pixels, which may reach beyond the bench.
  using Step = std::function<void(QPainter& painter, const Viewport& at, const QRectF& visible)>;

  /// What it is to be painted for.
  struct Wish {
    Viewport at;
    QSize size;  ///< of the bench, screen pixels
    double ratio = 1;
    QColor ground;  ///< round all that is painted
  };

  /// What is kept shows another thing now; it stays until the new one is there.
  void outdate() { ++wanted_; }
  /// It does within a box (upright px), and nowhere else.
  void outdateWithin(const QRectF& box);
  /// What is kept is not to be seen again: something else lies on the bench.
  void forget();
  /// Whether something that was wished for is kept, and is what is shown now.
  bool isCurrent(const Wish& wish) const;
  /// Whether something is kept at all that may stand in for it.
  bool canStandIn(const Wish& wish) const;

  /// Whether what is kept is what is wished for but within a box, `stale()` (upright px).
  bool isCurrentButFor(const Wish& wish) const;
  const QRectF& stale() const { return stale_; }
  /// Paints that box at once.
  void patch(const std::vector<Step>& steps, const Wish& wish);
  /// Paints all at once.
  void paintNow(const std::vector<Step>& steps, const Wish& wish);
  /// Begins to paint it in turns, with room on all sides; goes on with what was begun where that is of the same.
  void begin(std::vector<Step> steps, const Wish& wish);
  /// Paints for about so long; nothing where nothing was begun. True: it is whole, and kept.
  bool work(double milliseconds);
  bool works() const { return next_ < steps_.size(); }

  /// Shows what is kept as it lies at the viewport.
  void show(QPainter& painter, const Viewport& now) const;

 private:
  struct Sheet {
    QPixmap pixels;
    QPoint room;  ///< on the left and above, screen pixels
    Wish wish;
    unsigned version = 0;
  };
  /// What was begun is not gone on with.
  void drop();
  Sheet blank(const Wish& wish, QSize room) const;
  QRectF visibleOn(const Sheet& sheet) const;

  unsigned wanted_ = 1;
  QRectF stale_;
  Sheet kept_;
  Sheet made_;
  std::vector<Step> steps_;
  std::size_t next_ = 0;
};

}  // namespace rim::app
