#pragma once

#include <QTreeWidget>
#include <memory>
#include <optional>
#include <vector>

#include "app/preferences.h"
#include "core/drawing/drawing.h"
#include "core/mend/find/finding.h"

namespace rim::app {

/// Findings grouped by kind with counts, each with its number, a small picture and its size. Of a kind the first 5000
/// are listed; the last row says how many more there are.
class FindingList : public QTreeWidget {
  Q_OBJECT

 public:
  explicit FindingList(QWidget* parent = nullptr);

  /// `bySize`: within a kind the largest first; else as they were found. The drawing is what they were found in, mm.
  void show(std::shared_ptr<const std::vector<mend::Finding>> findings, const Drawing& drawing, bool bySize, Unit unit);

  /// Indices of the findings in the order of their numbers.
  const std::vector<std::size_t>& order() const { return order_; }
  std::optional<std::size_t> current() const;  ///< its number, from 0
  void choose(std::size_t number);
  /// The next finding or the one before, round and round.
  void step(int by);

 signals:
  void chosen();

 private:
  void addGroup(mend::FindingKind kind, Unit unit);
  QPixmap pictureOf(std::size_t number) const;

  class Row;
  Drawing drawing_;
  std::shared_ptr<const std::vector<mend::Finding>> findings_;
  std::vector<std::size_t> order_;
  std::vector<QTreeWidgetItem*> items_;  // by number; null where the list was cut short
};

}  // namespace rim::app
