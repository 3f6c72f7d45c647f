#pragma once

#include <QWidget>
#include <vector>

#include "app/preferences.h"
#include "core/refine/step.h"

class QComboBox;
class QDoubleSpinBox;
class QVBoxLayout;

namespace rim::app {

class LengthField;

/// What was done to the outlines, in order: each line can be adjusted, moved up and taken out.
class RefineList : public QWidget {
  Q_OBJECT

 public:
  explicit RefineList(QWidget* parent = nullptr);
  void show(const std::vector<refine::Step>& steps, Unit unit);

 signals:
  /// The list as it shall become. `name` is the undo step; changes of one number merge by `mergeKey`.
  void changed(const std::vector<rim::refine::Step>& steps, const QString& name, const QString& mergeKey);
  void refused(const QString& sentence);

 private:
  struct Row {
    QWidget* widget = nullptr;
    std::vector<LengthField*> lengths;     ///< one a number; null where it is a plain one
    std::vector<QDoubleSpinBox*> numbers;  ///< the other way round
    QComboBox* choice = nullptr;
  };
  void makeRow(std::size_t index);
  void addNumbers(QVBoxLayout* rows, std::size_t index);
  void addChoice(QVBoxLayout* rows, std::size_t index);
  void change(std::size_t index, const refine::Step& step, const QString& mergeKey);

  QVBoxLayout* column_;
  std::vector<Row> rows_;
  std::vector<refine::Step> steps_;
  Unit unit_ = Unit::Millimetre;
};

}  // namespace rim::app
