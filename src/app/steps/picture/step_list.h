#pragma once

#include <QWidget>
#include <vector>

#include "core/picture/preparation.h"

class QCheckBox;
class QDoubleSpinBox;
class QLineEdit;
class QVBoxLayout;

namespace rim::app {

/// What was done to the picture, in order: each line can be switched off, adjusted, moved up and removed.
class StepList : public QWidget {
  Q_OBJECT

 public:
  explicit StepList(QWidget* parent = nullptr);
  void show(const std::vector<picture::PreparationStep>& steps);

 signals:
  /// The list as it shall become. `name` is the undo step; changes of one number merge by `mergeKey`.
  void changed(const std::vector<rim::picture::PreparationStep>& steps, const QString& name, const QString& mergeKey);
  void refused(const QString& sentence);

 private:
  struct Row {
    QWidget* widget = nullptr;
    QCheckBox* on = nullptr;
    QDoubleSpinBox* number = nullptr;
    QLineEdit* crop = nullptr;
  };
  Row makeRow(std::size_t index);
  void rebuild();
  void update(std::size_t index, const picture::Preparation& what, const QString& mergeKey);
  void cropTyped(std::size_t index, QLineEdit* field);

  QVBoxLayout* column_;
  std::vector<Row> rows_;
  std::vector<picture::PreparationStep> steps_;
};

}  // namespace rim::app
