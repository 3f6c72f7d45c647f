// What the bench paints.

#include <QPainter>
#include <algorithm>
#include <cmath>

#include "app/bench/bench.h"
#include "app/bench/corner_brackets.h"
#include "app/bench/furniture.h"
#include "app/look.h"
#include "app/widgets/length_text.h"

namespace rim::app {
namespace {

/// So long at a time what is painted beside the work may hold up the hand; a screen shows a frame every 16 ms.
constexpr double kTurnMs = 5;

/// Parts of an outline's curves that are painted at once without being felt.
constexpr std::size_t kQuicklyPainted = 4000;

void paintSeamLine(QPainter& painter, double x, double height) {
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(look().text, 1.5));
  painter.drawLine(QPointF(x, 0), QPointF(x, height));
  // Stitches across the seam are its handle.
  for (int k = -2; k <= 2; ++k) {
    const double y = height / 2.0 + k * 9;
    painter.setPen(QPen(look().panel, 5));
    painter.drawLine(QPointF(x - 8, y), QPointF(x + 8, y));
    painter.setPen(QPen(look().text, 2.5));
    painter.drawLine(QPointF(x - 7, y), QPointF(x + 7, y));
  }
}

}  // namespace

void Bench::sceneChanged() {
  scene_.outdate();
  update();
}

void Bench::finishScene() {
  while (scene_.works()) scene_.work(kTurnMs);
  update();
}

void Bench::paintTurn() {
  if (scene_.work(kTurnMs)) update();
  if (!scene_.works()) turns_.stop();
}

void Bench::readyScene() {
  const Scene::Wish wish{viewport_, size(), devicePixelRatioF(), look().bench};
  if (scene_.isCurrent(wish)) return;
  std::size_t besides = 0;
  for (const BenchLayer* layer : layers_) besides += layer->elements();
  // Nodes show, or do not, by how many of all are in sight.
  if (!nodes_ && scene_.isCurrentButFor(wish) &&
      outlines_->elementsWithin(scene_.stale()) + besides <= kQuicklyPainted) {
    scene_.patch(sceneSteps(), wish);
    return;
  }
  const bool heavy = outlines_->elements() + besides > kQuicklyPainted;
  if (!heavy || !scene_.canStandIn(wish)) {
    scene_.paintNow(sceneSteps(), wish);
    return;
  }
  scene_.begin(sceneSteps(), wish);
  turns_.start();
}

void Bench::paintEvent(QPaintEvent*) {
  readyScene();
  QPainter painter(this);
  scene_.show(painter, viewport_);
  if (bare() || showsOriginal()) return;
  painter.setRenderHint(QPainter::Antialiasing);
  if (tool_ != nullptr) tool_->paint(painter, toolView());
  paintInFront(painter);
  painter.setRenderHint(QPainter::Antialiasing, false);
  paintFurniture(painter);
}

void Bench::paintInFront(QPainter& painter) {
  for (const BenchLayer* layer : layers_) {
    if (layer->level() != BenchLayer::Level::InFront) continue;
    painter.save();
    for (std::size_t part = 0; part < layer->parts(); ++part) layer->paint(painter, layerView(), part);
    painter.restore();
  }
}

LayerView Bench::layerView(const Viewport& at, const QRectF& visible) const {
  return {at, visible, mmPerPixel_, unit_, pointerInside_ ? std::optional(pointer_) : std::nullopt};
}

void Bench::addLayers(BenchLayer::Level level, std::vector<Scene::Step>& steps) {
  for (const BenchLayer* layer : layers_) {
    if (layer->level() != level) continue;
    for (std::size_t part = 0; part < layer->parts(); ++part) {
      steps.emplace_back([this, layer, part](QPainter& painter, const Viewport& at, const QRectF& visible) {
        painter.save();
        layer->paint(painter, layerView(at, visible), part);
        painter.restore();
      });
    }
  }
}

std::vector<Scene::Step> Bench::sceneSteps() {
  if (bare()) {
    return {[this](QPainter& painter, const Viewport&, const QRectF&) {
      paintSentence(painter, rect(), tr("The bench is empty"),
                    tr("Drop a picture or a drawing here, paste one, or open one with Ctrl+O. PNG, JPEG, BMP, GIF, "
                       "TIFF, WebP and PDF can be read, and drawings in SVG and DXF."));
    }};
  }
  if (showsOriginal()) {
    return {[this](QPainter& painter, const Viewport&, const QRectF&) {
      Box whole;
      whole.include(Point{0, 0});
      whole.include(Point{original_.size().width(), original_.size().height()});
      original_.paint(painter, Viewport::fitting(whole, withMargin()), rect(), 1);
    }};
  }
  std::vector<Scene::Step> steps{
      [this](QPainter& painter, const Viewport& at, const QRectF&) { painter.fillRect(sheet(at), look().sheet); }};
  if (peek_ || (tool_ != nullptr && !tool_->overOutlines())) {
    steps.push_back(pictureStep(1));
  } else if (compare_ == Compare::Seam) {
    addSeam(steps);
  } else {
    steps.push_back(pictureStep(compare_ == Compare::Overlay ? strength_ : 0));
    for (Scene::Step& step : outlineSteps()) steps.push_back(std::move(step));
  }
  steps.emplace_back([this](QPainter& painter, const Viewport& at, const QRectF&) {
    painter.setPen(QPen(look().sheetEdge, 1));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(sheet(at));
  });
  addLayers(BenchLayer::Level::OnSheet, steps);
  return steps;
}

Scene::Step Bench::pictureStep(double strength) {
  return [this, strength](QPainter& painter, const Viewport& at, const QRectF& visible) {
    const bool inks = !inkLayer_.empty() && !peek_ && inkLayer_.size() == picture_.size();
    // Inks are looked at for their colours: they show in full as soon as they show.
    (inks ? inkLayer_ : picture_).paint(painter, at, visible, inks && strength > 0 ? 1 : strength);
  };
}

std::vector<Scene::Step> Bench::outlineSteps() {
  std::vector<Scene::Step> steps;
  addLayers(BenchLayer::Level::UnderOutlines, steps);
  // The inks themselves fill what is enclosed.
  const bool filled = inkLayer_.empty() || compare_ != Compare::Overlay;
  for (std::size_t part = 0; part < outlines_->parts(); ++part) {
    steps.emplace_back([this, part, filled](QPainter& painter, const Viewport& at, const QRectF& visible) {
      outlines_->paint(painter, at, visible, filled, part);
    });
  }
  addLayers(BenchLayer::Level::OverOutlines, steps);
  if (nodes_) steps.push_back(nodeStep());
  return steps;
}

Scene::Step Bench::nodeStep() {
  return [this](QPainter& painter, const Viewport& at, const QRectF& visible) {
    if (outlines_->paintNodes(painter, at, visible)) return;
    painter.setPen(look().text);
    painter.setFont(fontLike(0));
    painter.drawText(rect().adjusted(0, 10, 0, 0), Qt::AlignHCenter | Qt::AlignTop,
                     tr("Too many nodes in sight to show them: zoom in."));
  };
}

void Bench::addSeam(std::vector<Scene::Step>& steps) {
  steps.emplace_back([this, paint = pictureStep(1)](QPainter& painter, const Viewport& at, const QRectF& visible) {
    painter.setClipRect(QRectF(visible.topLeft(), QPointF(seamX(at), visible.bottom())));
    paint(painter, at, visible);
  });
  for (const Scene::Step& step : outlineSteps()) {
    steps.emplace_back([this, step](QPainter& painter, const Viewport& at, const QRectF& visible) {
      painter.setClipRect(QRectF(QPointF(seamX(at), visible.top()), visible.bottomRight()));
      step(painter, at, visible);
    });
  }
  steps.emplace_back(
      [this](QPainter& painter, const Viewport& at, const QRectF&) { paintSeamLine(painter, seamX(at), height()); });
}

void Bench::paintFurniture(QPainter& painter) {
  if (known_ && outlines_->empty() && !peek_ && tool_ == nullptr) {
    paintSentence(painter, rect(), tr("No outlines"),
                  tr("Nothing that is ink at this threshold is traced. Move the threshold, choose the automatic one, "
                     "change which part is the ink, or set another smallest part."));
  }
  double border = 0;
  auto legend = outlineLegend(outlines_->hasPenLines());
  for (const BenchLayer* layer : layers_) {
    border = std::max(border, layer->border());
    if (auto own = layer->legend(); !own.empty()) legend = std::move(own);
  }
  const QRectF free = QRectF(rect()).adjusted(border, border, 0, 0);
  constexpr double kScaleBarPx = 130;
  const QString hint = tool_ != nullptr ? tool_->hint() : QString();
  if (!hint.isEmpty()) {
    paintHint(painter, free, hint);
  } else {
    paintLegend(painter, free, legend);
  }
  paintScale(painter, rect(), scaleBarFor(viewport_.scale / mmPerPixel_, kScaleBarPx, unit_), pointerText());
}

QString Bench::pointerText() const {
  if (tool_ != nullptr && !tool_->chosenText().isEmpty()) return tool_->chosenText();
  if (!pointerInside_) return {};
  const Point p = viewport_.toPicture(pointer_) * mmPerPixel_;
  const int decimals = unit_ == Unit::Inch ? 3 : 2;
  const double k = unit_ == Unit::Inch ? 1 / kMmPerInch : 1;
  return tr("x %1  y %2").arg(p.x * k, 0, 'f', decimals).arg(p.y * k, 0, 'f', decimals);
}

}  // namespace rim::app
