#pragma once

#include <QFrame>

class QAction;
class QHBoxLayout;
class QLabel;
class QSlider;
class QToolButton;

namespace rim::app {

/// The strip above the bench: how picture and outlines are compared, and how near they are seen.
class ViewStrip : public QFrame {
  Q_OBJECT

 public:
  ViewStrip(const QList<QAction*>& compare, const QList<QAction*>& view, QWidget* parent = nullptr);
  void setStrength(double strength);
  void setZoom(double percent);

 signals:
  void strengthChanged(double strength);
  void peek(bool on);

 private:
  void addButton(QHBoxLayout* row, QAction* action);

  QSlider* strength_;
  QLabel* zoom_;
};

}  // namespace rim::app
