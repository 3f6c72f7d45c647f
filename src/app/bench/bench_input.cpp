// What the bench does with the pointer and the keys.

#include <QApplication>
#include <QContextMenuEvent>
#include <QDragEnterEvent>
#include <QMimeData>
#include <QMouseEvent>
#include <QWheelEvent>
#include <cmath>

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

void Bench::mousePressEvent(QMouseEvent* event) {
  pointer_ = event->position();
  // What one button drags no other one interrupts.
  if (bare() || drag_ != Drag::None) return;
  dragButton_ = event->button();
  if (event->button() == Qt::LeftButton && rulers_.covers(pointer_)) {
    rulers_.press(pointer_, viewport_);
    if (rulers_.holds()) drag_ = Drag::Guide;
    update();
    return;
  }
  if (event->button() == Qt::LeftButton && tool_ == nullptr) {
    if (const auto finding = findings_.at(pointer_, viewport_, mmPerPixel_)) {
      emit findingPressed(*finding);
      return;
    }
    if (const auto speck = specks_.at(pointer_, viewport_, mmPerPixel_)) {
      emit speckPressed(*speck);
      return;
    }
  }
  if (event->button() == Qt::LeftButton && tool_ != nullptr) {
    drag_ = Drag::Tool;
    tool_->press(toolView().toPicture(pointer_), toolView());
  } else if (event->button() == Qt::LeftButton && overSeam(pointer_)) {
    drag_ = Drag::Seam;
  } else if (event->button() == Qt::LeftButton || event->button() == Qt::MiddleButton) {
    drag_ = Drag::Pan;
    setCursor(Qt::ClosedHandCursor);
  }
}

void Bench::mouseMoveEvent(QMouseEvent* event) {
  const QPointF before = pointer_;
  pointer_ = event->position();
  pointerInside_ = true;
  if (drag_ == Drag::Guide) {
    rulers_.drag(pointer_, viewport_);
  } else if (drag_ == Drag::None && rulers_.covers(pointer_)) {
    setCursor(pointer_.y() < Rulers::kWidth ? Qt::SizeVerCursor : Qt::SizeHorCursor);
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
    const bool speck = specks_.at(pointer_, viewport_, mmPerPixel_).has_value();
    setCursor(speck ? Qt::PointingHandCursor : overSeam(pointer_) ? Qt::SplitHCursor : Qt::ArrowCursor);
  }
  update();
}

void Bench::mouseReleaseEvent(QMouseEvent* event) {
  if (event->button() != dragButton_) return;
  const bool ofTool = drag_ == Drag::Tool && tool_ != nullptr;
  const auto guides = drag_ == Drag::Guide ? rulers_.release() : std::nullopt;
  drag_ = Drag::None;
  if (guides) emit guidesChanged(*guides);
  if (ofTool) tool_->release(toolView().toPicture(event->position()), toolView());
  setCursor(restingCursor());
}

void Bench::mouseDoubleClickEvent(QMouseEvent* event) {
  if (const auto notch = rulers_.notchAt(event->position(), viewport_); notch && event->button() == Qt::LeftButton) {
    emit guideToBeTyped(*notch);
    return;
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
  if (drag_ == Drag::Guide && event->key() == Qt::Key_Escape) {
    rulers_.letGo();
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
