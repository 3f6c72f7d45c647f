#pragma once

#include <QWidget>
#include <memory>
#include <utility>
#include <vector>

#include "app/errand.h"
#include "core/trace/deviation.h"

class QCheckBox;
class QDoubleSpinBox;
class QLabel;
class QPushButton;
class QSlider;
class QSpinBox;

namespace rim::app {

class BenchTool;
class Session;
class SmoothnessCurve;
class StrokeControls;
class ThresholdSlider;
struct TraceActions;

/// The Trace step: which part of the picture is ink, and how closely its borders are followed.
class TracePanel : public QWidget {
  Q_OBJECT

 public:
  TracePanel(Session& session, const TraceActions& actions, QWidget* parent = nullptr);
  void show();

  /// "12 outlines, threshold 127", the state line of the step.
  static QString stateLine(const Session& session);

  void setAutomatic(bool automatic);
  void moveThreshold(int by);
  /// Parts are switched by a click, or not.
  void setSwitching(bool on);
  /// What was measured of the outlines' distance from the border; null: nothing yet.
  void showDeviation(const std::shared_ptr<const trace::Deviation>& deviation);

 signals:
  /// What the pointer does on the bench now; null: nothing of this step.
  void toolChanged(BenchTool* tool);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  /// What the nodes along the smoothness were counted for.
  struct Counted {
    picture::PictureId picture = picture::PictureId::None;
    trace::TraceSettings settings;
  };
  void buildThreshold();
  void buildShape(const TraceActions& actions);
  void buildExact();
  void buildResult(const TraceActions& actions);
  void showResult();
  void countNodes();
  void setThreshold(int level);

  Session& session_;
  ThresholdSlider* slider_;
  QSpinBox* level_;
  QPushButton* automatic_;
  QCheckBox* lightIsInk_;
  StrokeControls* strokes_;
  QDoubleSpinBox* tolerance_;
  SmoothnessCurve* curve_;
  Counted counted_;
  Errand counting_;
  QDoubleSpinBox* smallest_;
  QSlider* corners_;
  std::vector<std::pair<QCheckBox*, bool trace::Rules::*>> exact_;
  QLabel* counts_;
  QLabel* farthest_;
  QLabel* reference_;
};

}  // namespace rim::app
