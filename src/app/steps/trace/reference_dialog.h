#pragma once

#include <QDialog>
#include <vector>

#include "app/errand.h"
#include "app/preferences.h"
#include "core/refine/measure/differences.h"

class QLabel;
class QListWidget;
class QPushButton;
class QTreeWidget;
class QTreeWidgetItem;

namespace rim::app {

class Session;

/// The reference copies of a job beside the outlines as they are now: which of them show, what they are made of, side
/// by side, and where the outlines differ from the one that is chosen. It stays open while one works.
class ReferenceDialog : public QDialog {
  Q_OBJECT

 public:
  explicit ReferenceDialog(Session& session, QWidget* parent = nullptr);

  /// Shows it, or brings it up to date, with lengths in a unit.
  void show(Unit unit);
  /// Whether the differences to the chosen copy are being looked for.
  bool looking() const { return looking_.running(); }

 signals:
  /// A place that shall be seen, upright px.
  void lookedAt(rim::Point place);
  /// Places to be marked on the bench, upright px.
  void marked(const std::vector<std::pair<rim::Point, QString>>& marks);

 protected:
  void hideEvent(QHideEvent* event) override;

 private:
  void follow();
  void fillList();
  void compare();
  void tell(const std::vector<refine::Difference>& differences);
  void change(QTreeWidgetItem* item, int column);
  void drop();
  /// The copy that is chosen; -1: none.
  int chosen() const;

  Session& session_;
  Unit unit_ = Unit::Millimetre;
  bool filling_ = false;
  QTreeWidget* copies_;
  QLabel* text_;
  QListWidget* places_;
  QPushButton* drop_;
  std::vector<refine::Difference> differences_;
  Errand looking_;
};

}  // namespace rim::app
