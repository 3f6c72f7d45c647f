#include "app/bench/scene.h"

#include <QElapsedTimer>

namespace rim::app {
namespace {

bool same(const Viewport& a, const Viewport& b) { return a.scale == b.scale && a.origin == b.origin; }

}  // namespace

void Scene::forget() {
  outdate();
  drop();
  kept_ = {};
}

void Scene::drop() {
  steps_.clear();
  next_ = 0;
  made_ = {};
}

void Scene::outdateWithin(const QRectF& box) {
  // What is painted at the moment, or is to be, is of another time.
  if (works() || kept_.version != wanted_) outdate();
  stale_ |= box;
}

bool Scene::isCurrent(const Wish& wish) const { return stale_.isNull() && isCurrentButFor(wish); }

bool Scene::isCurrentButFor(const Wish& wish) const {
  return kept_.version == wanted_ && canStandIn(wish) && same(kept_.wish.at, wish.at);
}

bool Scene::canStandIn(const Wish& wish) const {
  return !kept_.pixels.isNull() && kept_.wish.size == wish.size && kept_.wish.ratio == wish.ratio &&
         kept_.wish.ground == wish.ground;
}

Scene::Sheet Scene::blank(const Wish& wish, QSize room) const {
  Sheet sheet{QPixmap(((wish.size + 2 * room) * wish.ratio)), {room.width(), room.height()}, wish, wanted_};
  sheet.pixels.setDevicePixelRatio(wish.ratio);
  sheet.pixels.fill(wish.ground);
  return sheet;
}

QRectF Scene::visibleOn(const Sheet& sheet) const {
  return QRectF(QPointF(), QSizeF(sheet.wish.size))
      .adjusted(-sheet.room.x(), -sheet.room.y(), sheet.room.x(), sheet.room.y());
}

void Scene::patch(const std::vector<Step>& steps, const Wish& wish) {
  constexpr double kBesidePx = 12;  // of strokes and marks
  const QRectF seen(wish.at.toScreen({stale_.left(), stale_.bottom()}), stale_.size() * wish.at.scale);
  const QRectF wide = seen.adjusted(-kBesidePx, -kBesidePx, kBesidePx, kBesidePx) & visibleOn(kept_);
  // Along whole pixels: parts of them would be mixed with what was there.
  const double ratio = wish.ratio;
  const QRect whole = QRectF(wide.topLeft() * ratio, wide.size() * ratio).toAlignedRect();
  const QRectF area(QPointF(whole.topLeft()) / ratio, QSizeF(whole.size()) / ratio);
  stale_ = {};
  QPainter painter(&kept_.pixels);
  painter.translate(kept_.room);
  painter.setClipRect(area);
  painter.fillRect(area, wish.ground);
  for (const Step& step : steps) {
    painter.save();
    step(painter, wish.at, area);
    painter.restore();
  }
}

void Scene::paintNow(const std::vector<Step>& steps, const Wish& wish) {
  drop();
  kept_ = blank(wish, QSize(0, 0));
  stale_ = {};
  QPainter painter(&kept_.pixels);
  for (const Step& step : steps) {
    painter.save();
    step(painter, wish.at, visibleOn(kept_));
    painter.restore();
  }
}

void Scene::begin(std::vector<Step> steps, const Wish& wish) {
  // What is begun may lie elsewhere: when it is whole it is nearer to what is seen than what is kept.
  if (works() && made_.version == wanted_) return;
  constexpr int kShare = 5;  // of the bench, on each side
  made_ = blank(wish, wish.size / kShare);
  stale_ = {};
  steps_ = std::move(steps);
  next_ = 0;
}

bool Scene::work(double milliseconds) {
  if (!works()) return false;
  QElapsedTimer clock;
  clock.start();
  QPainter painter(&made_.pixels);
  painter.translate(made_.room);
  while (works()) {
    painter.save();
    steps_[next_++](painter, made_.wish.at, visibleOn(made_));
    painter.restore();
    constexpr double kNanoseconds = 1e6;
    if (static_cast<double>(clock.nsecsElapsed()) > milliseconds * kNanoseconds) break;
  }
  if (works()) return false;
  painter.end();
  kept_ = std::move(made_);
  drop();
  return true;
}

void Scene::show(QPainter& painter, const Viewport& now) const {
  const double stretch = now.scale / kept_.wish.at.scale;
  const QPointF at = now.origin - kept_.wish.at.origin * stretch;
  const QRectF bench(QPointF(), QSizeF(kept_.wish.size));
  const QRectF covered(at - QPointF(kept_.room) * stretch, visibleOn(kept_).size() * stretch);
  painter.save();
  if (!covered.contains(bench)) painter.fillRect(bench, kept_.wish.ground);
  if (stretch == 1) {
    painter.drawPixmap(covered.topLeft(), kept_.pixels);
  } else {
    painter.drawPixmap(covered, kept_.pixels, QRectF(kept_.pixels.rect()));
  }
  painter.restore();
}

}  // namespace rim::app
