#pragma once

#include <QWidget>
#include <vector>

#include "app/preferences.h"
#include "core/refine/step.h"

class QComboBox;
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
  QWidget* makeRow(std::size_t index);
  void addNumbers(QVBoxLayout* rows, std::size_t index);

  QVBoxLayout* column_;
  std::vector<QWidget*> rows_;
  std::vector<refine::Step> steps_;
  Unit unit_ = Unit::Millimetre;
};

}  // namespace rim::app
