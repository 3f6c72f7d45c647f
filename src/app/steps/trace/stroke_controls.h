#pragma once

#include <QWidget>

#include "core/geometry/point.h"

class QButtonGroup;
class QComboBox;
class QDoubleSpinBox;
class QPushButton;

namespace rim::app {

class BenchTool;
class PartTool;
class Session;
class WidthChart;
struct TraceActions;

/// What is made of the ink: its borders, the middles of its strokes, or both by their width; and how strokes heal and
/// end.
class StrokeControls : public QWidget {
  Q_OBJECT

 public:
  StrokeControls(Session& session, const TraceActions& actions, QWidget* parent = nullptr);
  void show();
  /// The tool that switches single parts on the bench, as it is when it is taken up.
  BenchTool* takeTool();

 private:
  void buildMethod();
  void buildLimit();
  void buildParts(const TraceActions& actions);
  void buildEnds();
  void showParts();
  void switchAt(Point place, bool whole);

  Session& session_;
  QButtonGroup* method_;
  QWidget* limitPart_;
  WidthChart* chart_;
  QPushButton* automatic_;
  PartTool* parts_;
  QPushButton* partsBack_;
  QWidget* strokePart_;
  QDoubleSpinBox* heal_;
  QComboBox* ends_;
};

}  // namespace rim::app
