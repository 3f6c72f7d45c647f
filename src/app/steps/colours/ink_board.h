#pragma once

#include <QWidget>
#include <optional>

#include "core/colour/decisions.h"

class QMenu;

namespace rim::app {

/// The board of inks: a row each, with a band of its colour as long as its share, how many parts it has, and a ring
/// that is closed when it is kept. Dragging a row onto another merges them.
///
/// Keys: up and down choose a row, Space changes what becomes of it, M takes it up and, on another row, merges it into
/// that one, F2 renames, the menu key offers everything.
class InkBoard : public QWidget {
  Q_OBJECT

 public:
  explicit InkBoard(QWidget* parent = nullptr);
  /// Inks without pixels have no row.
  void show(const colour::InkMap& map, const std::vector<colour::InkShare>& shares);
  QSize sizeHint() const override;

 signals:
  void wanted(const rim::colour::InkDecision& decision);
  /// The ink to be lit on the bench; -1: none.
  void hovered(int ink);

 protected:
  bool event(QEvent* event) override;
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void leaveEvent(QEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void contextMenuEvent(QContextMenuEvent* event) override;
  void focusInEvent(QFocusEvent* event) override;
  void focusOutEvent(QFocusEvent* event) override;

 private:
  struct Row {
    std::size_t ink = 0;
    colour::Ink what;
    colour::InkShare share;
  };
  QRectF rowRect(std::size_t row) const;
  QRectF ringRect(std::size_t row) const;
  std::optional<std::size_t> rowAt(QPointF place) const;
  void paintRow(QPainter& painter, std::size_t row) const;
  void choose(std::size_t row);
  void changeRole(std::size_t row);
  void rename(std::size_t row);
  void recolour(std::size_t row);
  void takeUpOrMerge();
  void offer(std::size_t row, QPoint where);
  void describe();

  std::vector<Row> rows_;
  std::size_t chosen_ = 0;
  std::optional<std::size_t> hover_;
  std::optional<std::size_t> held_;  ///< dragged, or taken up by key
  bool dragging_ = false;
  QPointF pressed_;
  QPointF pointer_;
};

}  // namespace rim::app
