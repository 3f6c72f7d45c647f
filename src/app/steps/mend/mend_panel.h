#pragma once

#include <QWidget>
#include <map>
#include <optional>

#include "app/preferences.h"
#include "app/steps/mend/speck_layer.h"
#include "core/mend/decide.h"

class QComboBox;
class QLabel;
class QPushButton;
class QSlider;

namespace rim::app {

class FindingList;
class LengthField;
class Session;
struct MendActions;

/// The Mend step: every fault that was found, and what is to be done about it.
class MendPanel : public QWidget {
  Q_OBJECT

 public:
  MendPanel(Session& session, const MendActions& actions, QWidget* parent = nullptr);

  /// Follows the session; `findings` may be on their way. Lengths are shown in the unit.
  void show(Unit unit);

  /// "3 findings", the state line of the step.
  static QString stateLine(const Session& session);

  FindingList& list() { return *list_; }
  /// The finding that is looked at; null: none.
  const mend::Finding* finding() const;
  /// The repair that is chosen for it.
  std::string repair() const;
  /// Whether the repair is shown for all findings like the one that is looked at.
  bool showsAll() const;
  /// Whether what all proposals together would do is shown instead.
  bool showsProposals() const;
  /// The repair was found to change nothing: the sentence says so.
  void showNoWay();

  /// Keeps a speck that would go, or lets one go that was kept.
  void toggle(const Speck& speck);

 signals:
  void findingChanged();  ///< another one is looked at, or another repair is chosen
  void refused(const QString& sentence);

 protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

 private:
  void buildSettings();
  void buildFinding(const MendActions& actions);
  void decide(mend::MendStep::What what);
  void forget(const mend::Finding& lost);
  void decide(const mend::MendStep& step);
  void showFinding();
  void showAllowed();
  void editSettings(const QString& name, const QString& mergeKey, double mend::MendSettings::*which, double value);

  Session& session_;
  const MendActions& actions_;
  QLabel* totals_;
  QLabel* before_;
  FindingList* list_;
  QComboBox* sort_;
  QLabel* sentence_;
  QComboBox* repair_;
  QPushButton* repairAll_ = nullptr;
  QPushButton* proposals_ = nullptr;
  LengthField* gap_;
  QLabel* gapUnit_;
  QSlider* speck_;
  QLabel* speckText_;
  Unit unit_ = Unit::Millimetre;
  std::shared_ptr<const std::vector<mend::Finding>> listed_;
  std::map<mend::FindingKind, QString> chosen_;  ///< the repair that was chosen last for a kind
  std::optional<std::size_t> lookedAt_;          ///< its number in the list before
};

}  // namespace rim::app
