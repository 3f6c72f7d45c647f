#pragma once

#include <QWidget>

class QCheckBox;
class QDoubleSpinBox;
class QLabel;
class QPushButton;
class QSlider;
class QSpinBox;

namespace rim::app {

class Session;
class ThresholdSlider;

/// The Trace step: which part of the picture is ink, and how closely its borders are followed.
class TracePanel : public QWidget {
  Q_OBJECT

 public:
  explicit TracePanel(Session& session, QWidget* parent = nullptr);
  void show();

  /// "12 outlines, threshold 127", the state line of the step.
  static QString stateLine(const Session& session);

  void setAutomatic(bool automatic);
  void setLightIsInk(bool lightIsInk);
  void moveThreshold(int by);

 private:
  void buildThreshold();
  void buildShape();
  void setThreshold(int level);

  Session& session_;
  ThresholdSlider* slider_;
  QSpinBox* level_;
  QPushButton* automatic_;
  QCheckBox* lightIsInk_;
  QDoubleSpinBox* tolerance_;
  QDoubleSpinBox* smallest_;
  QSlider* corners_;
};

}  // namespace rim::app
