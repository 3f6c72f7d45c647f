// What the bench does with the pointer and the keys.

#include <QApplication>
#include <QContextMenuEvent>
#include <QDragEnterEvent>
#include <QMimeData>
#include <QMouseEvent>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>
#include <utility>

#include "app/bench/bench.h"
#include "app/widgets/svg_mime.h"

namespace rim::app {

void Bench::resizeEvent(QResizeEvent*) {
  if (fitted_) fit();
}

void Bench::wheelEvent(QWheelEvent* event) {
  if (bare()) return;
  constexpr double kFactorPerNotch = 1.25;
  constexpr double kNotch = 120;
  setViewport(viewport_.zoomedAt(event->position(), std::pow(kFactorPerNotch, event->angleDelta().y() / kNotch)));
  event->accept();
}

std::vector<BenchLayer*> Bench::layersOn(BenchLayer::Level level) const {
  std::vector<BenchLayer*> on;
  std::copy_if(layers_.rbegin(), layers_.rend(), std::back_inserter(on),
               [level](const BenchLayer* layer) { return layer->level() == level; });
  return on;
}

bool Bench::pressLayer(BenchLayer::Level level) {
  for (BenchLayer* layer : layersOn(level)) {
    if (!layer->press(pointer_, layerView())) continue;
    held_ = layer;
    drag_ = Drag::Layer;
    update();
    return true;
  }
  return false;
}

std::optional<Qt::CursorShape> Bench::layerCursor(BenchLayer::Level level) const {
  for (const BenchLayer* layer : layersOn(level)) {
    if (const auto cursor = layer->cursorAt(pointer_, layerView())) return cursor;
  }
  return {};
}

void Bench::mousePressEvent(QMouseEvent* event) {
  pointer_ = event->position();
  // What one button drags no other one interrupts.
  if (bare() || drag_ != Drag::None) return;
  dragButton_ = event->button();
  const bool left = event->button() == Qt::LeftButton;
  if (left &&
      (pressLayer(BenchLayer::Level::InFront) || (tool_ == nullptr && pressLayer(BenchLayer::Level::OverOutlines))))
    return;
  if (left && tool_ != nullptr) {
    drag_ = Drag::Tool;
    tool_->press(toolView().toPicture(pointer_), toolView());
  } else if (left && overSeam(pointer_)) {
    drag_ = Drag::Seam;
  } else if (left || event->button() == Qt::MiddleButton) {
    drag_ = Drag::Pan;
    setCursor(Qt::ClosedHandCursor);
  }
}

void Bench::mouseMoveEvent(QMouseEvent* event) {
  const QPointF before = pointer_;
  pointer_ = event->position();
  pointerInside_ = true;
  const auto inFront = drag_ == Drag::None ? layerCursor(BenchLayer::Level::InFront) : std::nullopt;
  if (drag_ == Drag::Layer) {
    if (held_ != nullptr) held_->drag(pointer_, layerView());
  } else if (inFront) {
    setCursor(*inFront);
  } else if (drag_ == Drag::Pan) {
    setViewport(viewport_.movedBy(pointer_ - before));
  } else if (drag_ == Drag::Seam && sheet(viewport_).width() > 0) {
    const QRectF whole = sheet(viewport_);
    seam_ = std::clamp((pointer_.x() - whole.left()) / whole.width(), 0.0, 1.0);
    sceneChanged();
  } else if (tool_ != nullptr) {
    if (drag_ == Drag::None) setCursor(restingCursor());
    tool_->move(toolView().toPicture(pointer_), toolView());
  } else {
    const auto over = layerCursor(BenchLayer::Level::OverOutlines);
    setCursor(over ? *over : overSeam(pointer_) ? Qt::SplitHCursor : Qt::ArrowCursor);
  }
  update();
}

void Bench::mouseReleaseEvent(QMouseEvent* event) {
  if (event->button() != dragButton_) return;
  const bool ofTool = drag_ == Drag::Tool && tool_ != nullptr;
  BenchLayer* const layer = drag_ == Drag::Layer ? std::exchange(held_, nullptr) : nullptr;
  drag_ = Drag::None;
  if (layer != nullptr) layer->release();
  if (ofTool) tool_->release(toolView().toPicture(event->position()), toolView());
  setCursor(restingCursor());
}

void Bench::mouseDoubleClickEvent(QMouseEvent* event) {
  pointer_ = event->position();
  for (BenchLayer* layer : layersOn(BenchLayer::Level::InFront)) {
    if (event->button() == Qt::LeftButton && layer->doublePress(pointer_, layerView())) return;
  }
  if (tool_ == nullptr || bare() || drag_ != Drag::None || event->button() != Qt::LeftButton) {
    mousePressEvent(event);
    return;
  }
  dragButton_ = event->button();
  drag_ = Drag::Tool;
  tool_->doublePress(toolView().toPicture(event->position()), toolView());
}

void Bench::contextMenuEvent(QContextMenuEvent* event) {
  if (tool_ == nullptr || bare() || drag_ == Drag::Tool) return;
  if (event->reason() == QContextMenuEvent::Mouse) tool_->pressForMenu(toolView().toPicture(event->pos()), toolView());
  emit menuWished(event->globalPos());
}

void Bench::leaveEvent(QEvent*) {
  pointerInside_ = false;
  update();
}

/// What is typed into a tool is no shortcut.
bool Bench::event(QEvent* event) {
  if (event->type() == QEvent::ShortcutOverride && tool_ != nullptr && tool_->takesTyping()) {
    const auto* key = static_cast<QKeyEvent*>(event);
    const bool plain = (key->modifiers() & ~(Qt::ShiftModifier | Qt::KeypadModifier)) == 0;
    const bool ends = key->key() == Qt::Key_Return || key->key() == Qt::Key_Enter || key->key() == Qt::Key_Backspace;
    if (plain && (ends || (!key->text().isEmpty() && key->text().front().isPrint()))) {
      event->accept();
      return true;
    }
  }
  return QWidget::event(event);
}

/// Arrow keys move what a tool has chosen by a pixel, with Shift or Ctrl by ten; Space chooses the next.
bool Bench::keyForTool(const QKeyEvent& event) {
  if (tool_ == nullptr) return false;
  const double step = (event.modifiers() & (Qt::ControlModifier | Qt::ShiftModifier)) != 0 ? 10 : 1;
  switch (event.key()) {
    case Qt::Key_Left:
      return tool_->nudge({-step, 0});
    case Qt::Key_Right:
      return tool_->nudge({step, 0});
    case Qt::Key_Up:
      return tool_->nudge({0, -step});
    case Qt::Key_Down:
      return tool_->nudge({0, step});
    case Qt::Key_Space:
      return tool_->chooseNext();
    default:
      return false;
  }
}

void Bench::keyPressEvent(QKeyEvent* event) {
  if (tool_ != nullptr && tool_->takesTyping() && tool_->type(event->text(), event->key())) return;
  if (keyForTool(*event)) {
    setAccessibleDescription(tool_->chosenText());
    return;
  }
  if (drag_ == Drag::Layer && held_ != nullptr && event->key() == Qt::Key_Escape) {
    std::exchange(held_, nullptr)->letGo();
    drag_ = Drag::None;
    update();
    return;
  }
  constexpr double kStepPx = 40;
  constexpr double kSeamStep = 0.02;
  const bool moveSeam = compare_ == Compare::Seam && event->modifiers() == Qt::ShiftModifier;
  switch (event->key()) {
    case Qt::Key_Left:
    case Qt::Key_Right: {
      const double direction = event->key() == Qt::Key_Left ? -1 : 1;
      if (moveSeam) {
        seam_ = std::clamp(seam_ + direction * kSeamStep, 0.0, 1.0);
        sceneChanged();
      } else {
        setViewport(viewport_.movedBy({-direction * kStepPx, 0}));
      }
      return;
    }
    case Qt::Key_Up:
    case Qt::Key_Down:
      setViewport(viewport_.movedBy({0, event->key() == Qt::Key_Up ? kStepPx : -kStepPx}));
      return;
    default:
      QWidget::keyPressEvent(event);
  }
}

void Bench::dragEnterEvent(QDragEnterEvent* event) {
  const QMimeData& content = *event->mimeData();
  if (content.hasUrls() || content.hasImage() || !svgIn(content).isEmpty()) event->acceptProposedAction();
}

void Bench::dropEvent(QDropEvent* event) {
  event->acceptProposedAction();
  emit dropped(event->mimeData(), viewport_.toPicture(event->position()));
}

}  // namespace rim::app
