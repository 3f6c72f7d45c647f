#pragma once

#include <QWidget>

#include "core/colour/decisions.h"

class QVBoxLayout;

namespace rim::app {

/// The decisions about inks in order: each can be switched off and removed.
class DecisionList : public QWidget {
  Q_OBJECT

 public:
  explicit DecisionList(QWidget* parent = nullptr);
  void show(const std::vector<colour::InkStep>& steps, const std::vector<colour::Ink>& inks);

 signals:
  /// The list as it shall become; `name` is the undo step.
  void changed(const std::vector<rim::colour::InkStep>& steps, const QString& name);

 private:
  QWidget* makeRow(std::size_t index, const QString& name);

  QVBoxLayout* column_;
  std::vector<colour::InkStep> steps_;
  QStringList names_;
  std::vector<QWidget*> rows_;
};

}  // namespace rim::app
