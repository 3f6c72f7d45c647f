#pragma once

#include <QWidget>

#include "app/bench/bench_tool.h"
#include "app/errand.h"
#include "core/picture/assess.h"

class QAction;
class QLabel;
class QLineEdit;
class QPushButton;
class QSpinBox;
class QVBoxLayout;

namespace rim::app {

class Session;
class StepList;
class RecipeChooser;
class ToolPanel;

/// The Picture step: what is open and what it is worth, what was done to it, and what could be.
class PicturePanel : public QWidget {
  Q_OBJECT

 public:
  PicturePanel(Session& session, QAction* open, QAction* paste, QWidget* parent = nullptr);
  void show();

  /// "320 × 320 px", the state line of the step.
  static QString stateLine(const Session& session);
  /// What stands in place of the picture's worth as long as that is worked out.
  static QString measuringText() { return tr("measuring…"); }

 public slots:
  /// Puts every tool away; returns whether there was one.
  bool putToolsAway();

 signals:
  void toolChanged(rim::app::BenchTool* tool);
  void refused(const QString& sentence);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  struct Finding {
    picture::Assessment assessment;
    std::vector<picture::Remark> remarks;
  };
  void buildWorth();
  void buildList();
  void addStep(const picture::Preparation& what);
  void addStroke(const picture::BrushStroke& stroke);
  void change(const std::vector<picture::PreparationStep>& steps, const QString& name, const QString& mergeKey);
  void showPage();
  void assessPicture();
  void showWorth(const Finding& finding);

  Session& session_;
  QLabel* name_;
  QLabel* pixels_;
  QLabel* resolution_;
  QWidget* pageRow_;
  QSpinBox* page_;
  QLineEdit* origin_;
  QLabel* worth_;
  QVBoxLayout* remarks_;
  QPushButton* traceable_;
  RecipeChooser* recipes_;
  QPushButton* add_;
  StepList* list_;
  ToolPanel* tools_;
  picture::PictureId assessed_ = picture::PictureId::None;  ///< the picture that worth_ is about
  Errand assessing_;
};

}  // namespace rim::app
