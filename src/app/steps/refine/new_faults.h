#pragma once

#include <QWidget>
#include <memory>
#include <optional>
#include <vector>

#include "app/preferences.h"
#include "core/mend/find/finding.h"

class QLabel;

namespace rim::app {

struct RefineActions;

/// Tells of faults that came by refining, and leads from one to the next. Hidden as long as there are none.
class NewFaults : public QWidget {
  Q_OBJECT

 public:
  using Faults = std::shared_ptr<const std::vector<mend::Finding>>;

  explicit NewFaults(const RefineActions& actions, QWidget* parent = nullptr);

  /// Shows these; null: they are not known yet, and what was shown stays.
  void show(const Faults& faults, Unit unit);
  /// Those that are shown; null: none were yet.
  const Faults& faults() const { return faults_; }
  /// The one that is looked at, by its place among them; none.
  std::optional<std::size_t> current() const { return current_; }

 signals:
  /// One is looked at, or others are there.
  void changed();
  void lookedAt(const rim::mend::Finding& fault);

 private:
  void next();
  void tell();

  const RefineActions& actions_;
  QLabel* text_;
  Faults faults_;
  std::optional<std::size_t> current_;
  Unit unit_ = Unit::Millimetre;
};

}  // namespace rim::app
