#pragma once

#include <QSize>
#include <QWidget>

#include "app/bench/bench_tool.h"
#include "core/picture/preparation.h"

class QCheckBox;
class QComboBox;
class QDoubleSpinBox;
class QLabel;
class QStackedWidget;
class QToolButton;

namespace rim::app {

class Session;

/// The tools that work on the picture with the pointer, and what can be chosen for each.
class ToolPanel : public QWidget {
  Q_OBJECT

 public:
  explicit ToolPanel(Session& session, QWidget* parent = nullptr);
  /// Puts every tool away.
  void putAway();
  bool active() const { return tool_ != nullptr; }
  /// Puts a tool away that was taken up for a picture of another size.
  void followPicture();

 signals:
  /// The tool that works on the bench now; null: none.
  void toolChanged(rim::app::BenchTool* tool);
  void wanted(const rim::picture::Preparation& what);
  void swept(const rim::picture::BrushStroke& stroke);

 private:
  enum Kind { kFrame, kCorners, kLevel, kBrush, kColour, kKinds };
  QWidget* frameOptions();
  QWidget* cornersOptions();
  QWidget* levelOptions();
  QWidget* brushOptions();
  QWidget* colourOptions();
  void choose(int kind);
  void use(BenchTool* tool);
  void setBrush();
  void finish(const picture::Preparation& what);

  Session& session_;
  BenchTool* tool_ = nullptr;
  QSize pictureSize_;  ///< when the tool was taken up
  QToolButton* buttons_[kKinds] = {};
  QStackedWidget* options_;
  QComboBox* ratio_ = nullptr;
  QDoubleSpinBox* diameter_ = nullptr;
  QComboBox* brushColour_ = nullptr;
  QDoubleSpinBox* tolerance_ = nullptr;
  QCheckBox* rest_ = nullptr;
  QCheckBox* connected_ = nullptr;
  QComboBox* pickTo_ = nullptr;
};

}  // namespace rim::app
