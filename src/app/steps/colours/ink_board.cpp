#include "app/steps/colours/ink_board.h"

#include <QApplication>
#include <QColorDialog>
#include <QContextMenuEvent>
#include <QInputDialog>
#include <QKeyEvent>
#include <QMenu>
#include <QPainter>
#include <QPainterPath>

#include "app/look.h"
#include "app/steps/colours/ink_text.h"
#include "app/widgets/counted.h"

namespace rim::app {
namespace {

constexpr int kRowHeight = 44;
constexpr double kRing = 16;
constexpr double kBandHeight = 15;

}  // namespace

InkBoard::InkBoard(QWidget* parent) : QWidget(parent) {
  setObjectName("inkBoard");
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  setAccessibleName(tr("Board of inks"));
  setToolTip(
      tr("Each ink, its share of the picture and its parts. Click the ring: kept, background or dissolved. Drag one "
         "ink onto another to merge it (keys: Space, M). Right click for more."));
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void InkBoard::show(const colour::InkMap& map, const std::vector<colour::InkShare>& shares) {
  rows_.clear();
  for (std::size_t i = 0; i < map.inks.size() && i < shares.size(); ++i) {
    if (shares[i].pixels > 0) rows_.push_back({i, map.inks[i], shares[i]});
  }
  chosen_ = std::min(chosen_, rows_.empty() ? 0 : rows_.size() - 1);
  held_.reset();
  dragging_ = false;
  describe();
  updateGeometry();
  update();
}

QSize InkBoard::sizeHint() const { return {240, static_cast<int>(rows_.size()) * kRowHeight + 4}; }

QRectF InkBoard::rowRect(std::size_t row) const {
  return {0, static_cast<double>(row) * kRowHeight + 2, static_cast<double>(width()), kRowHeight - 4.0};
}

QRectF InkBoard::ringRect(std::size_t row) const {
  const QRectF r = rowRect(row);
  return {r.left() + 8, r.center().y() - kRing / 2, kRing, kRing};
}

std::optional<std::size_t> InkBoard::rowAt(QPointF place) const {
  for (std::size_t i = 0; i < rows_.size(); ++i) {
    if (rowRect(i).contains(place)) return i;
  }
  return std::nullopt;
}

void InkBoard::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  for (std::size_t i = 0; i < rows_.size(); ++i) paintRow(painter, i);
  if (!dragging_ || !held_) return;
  // The held ink hangs at the pointer.
  painter.setPen(QPen(look().text, 1.5));
  painter.setBrush(colourOf(rows_[*held_].what.colour));
  painter.drawRoundedRect(QRectF(pointer_.x() - 26, pointer_.y() - 9, 52, 18), 9, 9);
}

void InkBoard::paintRow(QPainter& painter, std::size_t row) const {
  const Look& l = look();
  const Row& ink = rows_[row];
  const QRectF area = rowRect(row);
  const bool target = held_ && hover_ == row && *held_ != row;
  if (target || (hasFocus() && chosen_ == row) || hover_ == row) {
    painter.setPen(QPen(target || (hasFocus() && chosen_ == row) ? l.accent : l.line, target ? 2.5 : 1));
    painter.setBrush(l.raised);
    painter.drawRect(area.adjusted(1, 0, -1, 0));
  }
  const QRectF ring = ringRect(row);
  const bool kept = ink.what.role == colour::InkRole::Keep;
  QPen pen(kept ? l.good : l.quiet, 2.6);
  pen.setCapStyle(Qt::FlatCap);
  if (ink.what.role == colour::InkRole::Dissolve) pen.setDashPattern({0.7, 1.1});
  painter.setPen(pen);
  painter.setBrush(kept ? QBrush(l.fill) : QBrush(Qt::NoBrush));
  if (ink.what.role == colour::InkRole::Background) {
    painter.drawArc(ring, 65 * 16, 290 * 16);
  } else {
    painter.drawEllipse(ring);
  }
  const double left = ring.right() + 10;
  const double room = area.width() - left - 8;
  // The band's length grows with the root of the share: small inks must stay visible.
  const double band = std::max(16.0, room * std::sqrt(ink.share.share));
  painter.setPen(QPen(l.text, 0.8));
  painter.setBrush(colourOf(ink.what.colour));
  painter.drawRoundedRect(QRectF(left, area.top() + 3, band, kBandHeight), 3, 3);
  painter.setFont(fontLike(-1));
  painter.setPen(l.text);
  const QString words = held_ == row && !dragging_ ? tr("%1: choose where to merge it").arg(inkName(ink.what))
                        : kept                     ? inkName(ink.what)
                                                   : tr("%1, %2").arg(inkName(ink.what), roleName(ink.what.role));
  const QString numbers = tr("%1 %, %2")
                              .arg(ink.share.share * 100, 0, 'f', ink.share.share < 0.1 ? 1 : 0)
                              .arg(counted(ink.share.parts, tr("1 part"), tr("%1 parts")));
  const QRectF line(left, area.top() + kBandHeight + 4, room, area.height() - kBandHeight - 4);
  const double numbersWide = painter.fontMetrics().horizontalAdvance(numbers) + 8;
  painter.drawText(line.adjusted(0, 0, -numbersWide, 0), Qt::AlignVCenter,
                   painter.fontMetrics().elidedText(words, Qt::ElideRight, static_cast<int>(room - numbersWide)));
  painter.setPen(l.quiet);
  painter.drawText(line, Qt::AlignVCenter | Qt::AlignRight, numbers);
}

void InkBoard::choose(std::size_t row) {
  chosen_ = row;
  describe();
  update();
}

/// What a screen reader says of the chosen row.
void InkBoard::describe() {
  if (rows_.empty()) {
    setAccessibleDescription(tr("no inks"));
    return;
  }
  const Row& row = rows_[chosen_];
  setAccessibleDescription(tr("%1, %2, %3 percent of the picture")
                               .arg(inkName(row.what), roleName(row.what.role))
                               .arg(row.share.share * 100, 0, 'f', 1));
}

void InkBoard::changeRole(std::size_t row) {
  const auto next = static_cast<colour::InkRole>((static_cast<int>(rows_[row].what.role) + 1) % 3);
  emit wanted(colour::SetInkRole{rows_[row].ink, next});
}

void InkBoard::rename(std::size_t row) {
  bool taken = false;
  const QString name =
      QInputDialog::getText(this, tr("Rename ink"), tr("Name"), QLineEdit::Normal, inkName(rows_[row].what), &taken);
  if (taken) emit wanted(colour::RenameInk{rows_[row].ink, name.trimmed().toStdString()});
}

void InkBoard::recolour(std::size_t row) {
  const QColor colour = QColorDialog::getColor(colourOf(rows_[row].what.colour), this, tr("Colour of the ink"));
  if (colour.isValid()) emit wanted(colour::RecolourInk{rows_[row].ink, {colour.red(), colour.green(), colour.blue()}});
}

void InkBoard::takeUpOrMerge() {
  if (held_ && *held_ != chosen_) {
    const colour::MergeInks merge{rows_[*held_].ink, rows_[chosen_].ink};
    held_.reset();
    emit wanted(merge);
  } else {
    held_ = held_ ? std::nullopt : std::optional(chosen_);
    update();
  }
}

void InkBoard::offer(std::size_t row, QPoint where) {
  auto* menu = new QMenu(this);
  menu->setAttribute(Qt::WA_DeleteOnClose);
  const std::size_t ink = rows_[row].ink;
  for (const colour::InkRole role : {colour::InkRole::Keep, colour::InkRole::Background, colour::InkRole::Dissolve}) {
    QAction* action = menu->addAction(roleName(role), this, [this, ink, role] {
      emit wanted(colour::SetInkRole{ink, role});
    });
    action->setCheckable(true);
    action->setChecked(rows_[row].what.role == role);
  }
  menu->addSeparator();
  menu->addAction(tr("Rename…"), this, [this, row] { rename(row); });
  menu->addAction(tr("Recolour…"), this, [this, row] { recolour(row); });
  menu->addAction(tr("Split in two"), this, [this, ink] { emit wanted(colour::SplitInk{ink}); });
  QMenu* merge = menu->addMenu(tr("Merge into"));
  for (const Row& other : rows_) {
    if (other.ink == ink) continue;
    merge->addAction(inkName(other.what), this, [this, ink, into = other.ink] {
      emit wanted(colour::MergeInks{ink, into});
    });
  }
  merge->setEnabled(rows_.size() > 1);
  menu->popup(where);
}

void InkBoard::mousePressEvent(QMouseEvent* event) {
  const auto row = rowAt(event->position());
  if (!row || event->button() != Qt::LeftButton) return;
  choose(*row);
  if (ringRect(*row).adjusted(-8, -8, 6, 8).contains(event->position())) {
    changeRole(*row);
    return;
  }
  held_ = row;
  pressed_ = event->position();
}

void InkBoard::mouseMoveEvent(QMouseEvent* event) {
  pointer_ = event->position();
  const auto row = rowAt(pointer_);
  if (held_ && (event->buttons() & Qt::LeftButton) != 0 &&
      (pointer_ - pressed_).manhattanLength() >= QApplication::startDragDistance())
    dragging_ = true;
  if (row != hover_) {
    hover_ = row;
    emit hovered(row ? static_cast<int>(rows_[*row].ink) : -1);
  }
  update();
}

void InkBoard::mouseReleaseEvent(QMouseEvent* event) {
  const auto row = rowAt(event->position());
  const auto held = std::exchange(held_, std::nullopt);
  const bool dragged = std::exchange(dragging_, false);
  update();
  if (dragged && held && row && *row != *held) emit wanted(colour::MergeInks{rows_[*held].ink, rows_[*row].ink});
}

void InkBoard::mouseDoubleClickEvent(QMouseEvent* event) {
  const auto row = rowAt(event->position());
  held_.reset();
  if (row && !ringRect(*row).adjusted(-8, -8, 6, 8).contains(event->position())) rename(*row);
}

void InkBoard::leaveEvent(QEvent*) {
  hover_.reset();
  emit hovered(-1);
  update();
}

/// The board's own keys come before the window's while it has the focus.
bool InkBoard::event(QEvent* event) {
  if (event->type() == QEvent::ShortcutOverride) {
    const auto* key = static_cast<QKeyEvent*>(event);
    if (key->key() == Qt::Key_M && key->modifiers() == Qt::NoModifier && !rows_.empty()) {
      event->accept();
      return true;
    }
  }
  return QWidget::event(event);
}

void InkBoard::keyPressEvent(QKeyEvent* event) {
  if (rows_.empty()) return QWidget::keyPressEvent(event);
  const auto moved = [this](std::size_t to) {
    choose(to);
    emit hovered(static_cast<int>(rows_[to].ink));
  };
  switch (event->key()) {
    case Qt::Key_Up:
      return moved(chosen_ > 0 ? chosen_ - 1 : 0);
    case Qt::Key_Down:
      return moved(std::min(chosen_ + 1, rows_.size() - 1));
    case Qt::Key_Space:
      return changeRole(chosen_);
    case Qt::Key_M:
      return takeUpOrMerge();
    case Qt::Key_Return:
    case Qt::Key_Enter:
      if (held_) return takeUpOrMerge();
      return rename(chosen_);
    case Qt::Key_F2:
      return rename(chosen_);
    case Qt::Key_Escape:
      if (!held_) break;
      held_.reset();
      return update();
    default:
      break;
  }
  QWidget::keyPressEvent(event);
}

void InkBoard::contextMenuEvent(QContextMenuEvent* event) {
  if (rows_.empty()) return;
  if (event->reason() == QContextMenuEvent::Keyboard) {
    offer(chosen_, mapToGlobal(rowRect(chosen_).center().toPoint()));
  } else if (const auto row = rowAt(event->pos())) {
    offer(*row, event->globalPos());
  }
}

void InkBoard::focusInEvent(QFocusEvent*) {
  if (!rows_.empty()) emit hovered(static_cast<int>(rows_[chosen_].ink));
  update();
}

void InkBoard::focusOutEvent(QFocusEvent*) {
  emit hovered(-1);
  update();
}

}  // namespace rim::app
