#pragma once

#include <QWidget>
#include <set>
#include <vector>

#include "app/preferences.h"
#include "core/drawing/mark.h"

class QLabel;

namespace rim::app {

/// Says what became of handwork since what is under it was made anew, leads from one outline to the next, and offers to
/// let that handwork go. Hidden as long as there is none to tell of, and once that was said to be right.
class HandworkNotice : public QWidget {
  Q_OBJECT

 public:
  struct Words {
    QString name;  ///< of the text, as an object
    QString text;  ///< %1: the outlines, counted
    QString letGo;
    QString whatLetGoDoes;
  };

  explicit HandworkNotice(Words words, QWidget* parent = nullptr);

  void show(const std::vector<OutlineMark>& outlines);

 signals:
  void lookedAt(rim::Point place);
  /// What was made of these by hand is to go.
  void letGoWanted(const std::set<rim::OutlineId>& outlines);

 private:
  void next();

  Words words_;
  QLabel* text_;
  std::vector<OutlineMark> outlines_;
  std::set<OutlineId> right_;  ///< those that were said to be right
  std::size_t looked_ = 0;
};

}  // namespace rim::app
