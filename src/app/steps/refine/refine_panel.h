#pragma once

#include <QWidget>
#include <memory>
#include <vector>

#include "app/errand.h"
#include "app/newest_worker.h"
#include "app/preferences.h"
#include "app/steps/refine/offers.h"

class QCheckBox;
class QLabel;
class QMenu;
class QPushButton;
class QTreeWidget;
class QTreeWidgetItem;

namespace rim::app {

class Handwork;
class HandworkNotice;
class LayerList;
class LengthField;
class NewFaults;
class SimplifyPart;
class StockPart;
class RefineList;
class Session;
struct RefineActions;

/// The panel of the Refine step: what is nearly so and could be exactly so, what is chosen on the bench, and the list
/// of what was done.
class RefinePanel : public QWidget {
  Q_OBJECT

 public:
  RefinePanel(Session& session, const RefineActions& actions, QWidget* parent = nullptr);
  ~RefinePanel() override;

  /// Follows the session; lengths are shown in the unit.
  void show(Unit unit);

  /// "2 steps, 3 offers", the state line of the step.
  static QString stateLine(const Session& session);

  Handwork& handwork() { return *hand_; }
  const NewFaults& newFaults() const { return *faults_; }
  /// The offers that are listed; null while they are looked for.
  std::shared_ptr<const std::vector<Offer>> offers() const {
    return offers_ ? std::shared_ptr<const std::vector<Offer>>(offers_, &offers_->list) : nullptr;
  }
  /// The one that is looked at; null: none.
  const Offer* offer() const;

 signals:
  /// What the offer that is looked at would change, and where most; nothing: there is none.
  void previewed(const rim::app::RepairPreview& preview);
  void lookedAt(rim::Point place);
  /// Other faults came by refining, or another one of them is looked at.
  void faultsChanged();
  void refused(const QString& sentence);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  void buildOffers(const RefineActions& actions);
  void buildSizeRow();
  void connectOffers(const RefineActions& actions);
  void buildList();
  void fillMenu();
  void lookForOffers();
  void listOffers();
  void lookAtOffer();
  void showSize();
  void typeSize(double mm, bool wide);
  void takeOffer(bool allAlike);
  /// The outlines that offers are for; nothing: all.
  std::optional<std::set<OutlineId>> wantedOutlines() const;
  void showAllowed();
  void add(const refine::Step& step);
  void buildNotices();
  void buildSimplify();
  void buildStock();
  void centreOnStock();

  Session& session_;
  const RefineActions& actions_;
  Unit unit_ = Unit::Millimetre;
  double withinMm_ = refine::kWithinMm;
  QLabel* totals_;
  LengthField* within_;
  QLabel* withinUnit_;
  QTreeWidget* tree_;
  QCheckBox* onlyChosen_;
  QWidget* sizeRow_;
  LengthField* wide_;
  QLabel* times_;
  LengthField* high_;
  std::optional<refine::ShapeSize> typed_;  ///< the size that the offer that is looked at is to have, mm
  QPushButton* addStep_;
  QMenu* menu_;
  RefineList* list_;
  QLabel* changes_;
  NewFaults* faults_;
  HandworkNotice* kept_;
  HandworkNotice* lost_;
  Handwork* hand_;
  LayerList* layers_;
  SimplifyPart* simplify_;
  StockPart* stock_;
  std::shared_ptr<const Offers> offers_;
  std::shared_ptr<const Drawing> offersOf_;  ///< the outlines that they are about
  double offersWithin_ = 0;
  std::optional<std::set<OutlineId>> offersOnly_;
  double offersAt_ = 0;  ///< mm a pixel
  NewestWorker looking_;
};

}  // namespace rim::app
