#pragma once

#include <QWidget>
#include <vector>

#include "app/steps/colours/sweep_tool.h"
#include "core/job/job.h"

class QAction;
class QCheckBox;
class QComboBox;
class QLabel;
class QPushButton;
class QSpinBox;
class QVBoxLayout;

namespace rim::app {

class DecisionList;
class InkBoard;
class Session;
struct ColoursActions;

/// The Colours step: two tones or several inks, the board of inks, and what is made of them.
class ColoursPanel : public QWidget {
  Q_OBJECT

 public:
  ColoursPanel(Session& session, const ColoursActions& actions, QWidget* parent = nullptr);
  void show();

  /// "4 of 6 inks kept", the state line of the step.
  static QString stateLine(const Session& session);

  void setSeveralInks(bool on);
  void setSweeping(bool on);
  void mergeLikest();
  bool opensInInks() const;
  void setOpensInInks(bool on);

 signals:
  void toolChanged(rim::app::BenchTool* tool);
  /// The ink to be lit on the bench; -1: none.
  void hovered(int ink);
  void opensInInksChanged(bool on);

 private:
  void buildInks(const ColoursActions& actions);
  void buildSweep(const ColoursActions& actions);
  void buildLayout();
  void decide(const colour::InkDecision& decision);
  void sweepDone(const colour::SweepInks& sweep);
  void showSuggestions();
  void showMade();
  const trace::PartsAndHoles& partsOf(const std::shared_ptr<const Drawing>& tracing);
  void showTwoTones();
  void placeTool();

  Session& session_;
  const ColoursActions& actions_;
  QLabel* begin_;
  QPushButton* openings_;
  QWidget* several_;
  QSpinBox* count_;
  QPushButton* automatic_;
  InkBoard* board_;
  QVBoxLayout* suggestions_;
  std::vector<QWidget*> suggestionRows_;
  QSpinBox* sweepSize_;
  QCheckBox* connected_;
  QComboBox* layout_;
  QLabel* made_;
  DecisionList* list_;
  QLabel* listHeading_;
  QCheckBox* opens_;
  SweepTool* tool_;
  std::shared_ptr<const colour::InkMap> shown_;
  std::shared_ptr<const Drawing> countedOf_;  ///< the tracing that `parts_` are of
  trace::PartsAndHoles parts_;
};

}  // namespace rim::app
