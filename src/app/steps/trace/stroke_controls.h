#pragma once

#include <QWidget>

class QButtonGroup;
class QComboBox;
class QDoubleSpinBox;
class QPushButton;

namespace rim::app {

class Session;
class WidthChart;

/// What is made of the ink: its borders, the middles of its strokes, or both by their width; and how strokes heal and
/// end.
class StrokeControls : public QWidget {
  Q_OBJECT

 public:
  explicit StrokeControls(Session& session, QWidget* parent = nullptr);
  void show();

 private:
  void buildMethod();
  void buildLimit();
  void buildEnds();

  Session& session_;
  QButtonGroup* method_;
  QWidget* limitPart_;
  WidthChart* chart_;
  QPushButton* automatic_;
  QWidget* strokePart_;
  QDoubleSpinBox* heal_;
  QComboBox* ends_;
};

}  // namespace rim::app
