#pragma once

#include <QWidget>
#include <set>
#include <vector>

#include "app/preferences.h"
#include "core/drawing/mark.h"

class QLabel;

namespace rim::app {

/// Tells which outlines stay as they were made by hand though what is under them was made anew since, leads from one to
/// the next, and offers to let them go. Hidden as long as there are none, and once that was said to be right.
class KeptByHand : public QWidget {
  Q_OBJECT

 public:
  explicit KeptByHand(QWidget* parent = nullptr);

  void show(const std::vector<OutlineMark>& kept);

 signals:
  void lookedAt(rim::Point place);
  /// What was made of these by hand is to go.
  void letGoWanted(const std::set<rim::OutlineId>& outlines);

 private:
  void next();

  QLabel* text_;
  std::vector<OutlineMark> kept_;
  std::set<OutlineId> right_;  ///< those that were said to be right
  std::size_t looked_ = 0;
};

}  // namespace rim::app
