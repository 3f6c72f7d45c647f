#pragma once

#include "app/steps/step_room.h"

namespace rim::app {

class ExportPanel;

/// What can be done in the Export step, from wherever.
struct ExportActions {
  explicit ExportActions(ActionBook& book);

  QAction* exportFile;
  QAction* copyDrawing;
  QAction* sketch;
  QAction* batch;
};

/// The Export step in the window: files for machines and for other programs.
class ExportRoom : public StepRoom {
  Q_OBJECT

 public:
  explicit ExportRoom(const Workplace& at);

  const ExportActions& actions() const { return actions_; }
  QWidget* panel() override;
  void fillMenu(QMenu& menu) override;
  QList<QAction*> forFileMenu() const override;
  CardLine cardLine() const override;
  void show() override;
  std::shared_ptr<const Drawing> outlines(const job::Job& job) const override;

 private:
  void connectPanel();
  /// Asks for a file and writes the outlines to it, or only some.
  void askForFile(const std::set<OutlineId>& only);
  bool mayReplaceEach(const QString& file, const std::set<OutlineId>& only);
  void copyDrawing();
  void checkSketch();
  void applyToOthers();
  QString folder() const;

  ExportActions actions_;
  ExportPanel* panel_;
};

}  // namespace rim::app
