#pragma once

#include <QAbstractButton>
#include <QFrame>
#include <vector>

class QButtonGroup;

namespace rim::app {

/// One step of the job: its name, its state in a line, and a ring that is closed when the step
/// leaves nothing to do and open when it waits for something.
class StepRow : public QAbstractButton {
  Q_OBJECT

 public:
  StepRow(const QString& name, const QString& what, QWidget* parent);
  void setState(const QString& line, bool complete);
  QSize sizeHint() const override { return {168, 64}; }

 protected:
  void paintEvent(QPaintEvent* event) override;
  void enterEvent(QEnterEvent* event) override;
  void leaveEvent(QEvent* event) override;

 private:
  QString state_;
  bool complete_ = false;
};

/// The steps of the job with their live state, one below the other.
class JobCard : public QFrame {
  Q_OBJECT

 public:
  explicit JobCard(QWidget* parent = nullptr);
  void addStep(const QString& name, const QString& what);
  StepRow* step(int index) const { return rows_[static_cast<std::size_t>(index)]; }
  int count() const { return static_cast<int>(rows_.size()); }
  void choose(int index);
  /// The step that is chosen; -1: none yet.
  int chosenStep() const;

 signals:
  void chosen(int index);

 private:
  QButtonGroup* group_;
  std::vector<StepRow*> rows_;
};

}  // namespace rim::app
