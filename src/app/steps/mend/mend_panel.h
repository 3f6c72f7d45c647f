#pragma once

#include <QWidget>
#include <optional>

#include "core/mend/decide.h"

class QComboBox;
class QCheckBox;
class QDoubleSpinBox;
class QLabel;
class QSlider;

namespace rim::app {

class FindingList;
class Session;
struct Actions;

/// The Mend step: every fault that was found, and what is to be done about it.
class MendPanel : public QWidget {
  Q_OBJECT

 public:
  MendPanel(Session& session, Actions& actions, QWidget* parent = nullptr);

  /// Follows the session; `findings` may be on their way.
  void show();

  /// "3 findings", the state line of the step.
  static QString stateLine(const Session& session);

  FindingList& list() { return *list_; }
  /// The finding that is looked at; null: none.
  const Finding* finding() const;
  /// The repair that is chosen for it.
  std::string repair() const;

 signals:
  void findingChanged();  ///< another one is looked at, or another repair is chosen

 private:
  void buildSettings();
  void buildFinding(Actions& actions);
  void decide(MendStep::What what);
  void mendSafely();
  void showFinding();
  void showAllowed();
  void editSettings(const QString& name, const QString& mergeKey, double MendSettings::*which, double value);

  Session& session_;
  Actions& actions_;
  QLabel* totals_;
  QLabel* before_;
  FindingList* list_;
  QComboBox* sort_;
  QLabel* sentence_;
  QComboBox* repair_;
  QDoubleSpinBox* gap_;
  QSlider* speck_;
  QLabel* speckText_;
  std::shared_ptr<const std::vector<Finding>> listed_;
  std::optional<std::size_t> lookedAt_;  ///< its number in the list before
};

}  // namespace rim::app
