#pragma once

#include <QWidget>

#include "app/errand.h"
#include "app/preferences.h"
#include "core/io/receipt.h"
#include "core/job/file_wish.h"

class QLabel;
class QPushButton;

namespace rim::app {

class DragOut;
class FileForm;
class Session;
struct ExportActions;

/// The Export step: what kind of file, made of what, and what will stand in it.
class ExportPanel : public QWidget {
  Q_OBJECT

 public:
  ExportPanel(const Session& session, const ExportActions& actions, QWidget* parent = nullptr);
  void show(Unit unit);

  /// The file that is wanted of the job.
  job::FileWish wish() const;
  /// Shows what a fresh reading of the file that was written found.
  void showReceipt(const QString& file, std::shared_ptr<const io::Receipt> receipt, Unit unit);

  /// "DXF, 214 × 180 mm", the state line of the step.
  static QString stateLine(const Session& session, Unit unit);

 signals:
  void wished(const rim::job::FileWish& wish);
  /// A place of the receipt was clicked, mm.
  void placeWanted(rim::Point mm);
  void mendingWanted();
  void told(const QString& sentence);
  void refused(const QString& sentence);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  void buildButtons(const ExportActions& actions);
  void buildReceipt();
  void showSummary(Unit unit);
  /// Sentences on what a machine may stumble over.
  QStringList warnings() const;
  /// What the stock and the cutter say against it.
  QStringList sizeWarnings(const Drawing& drawing) const;
  /// Looks beside the window for what is thin, when there is a cutter to compare it with.
  void measureThin(const std::shared_ptr<const Drawing>& outlines);
  void follow(const QString& link);
  void saveReceipt();

  const Session& session_;
  FileForm* form_;
  QLabel* summary_;
  QLabel* warnings_;
  DragOut* drag_;
  QWidget* receiptPart_;
  QLabel* receiptTitle_;
  QLabel* receiptText_;
  QPushButton* saveReceipt_;
  QString receiptOf_;  ///< the file that it is about
  std::shared_ptr<const io::Receipt> receipt_;
  Unit unit_ = Unit::Millimetre;
  std::shared_ptr<const Drawing> thinOf_;  ///< the outlines that are looked through, or were
  double thinAt_ = 0;                      ///< mm a pixel
  std::optional<refine::ThinPlaces> thin_;
  Errand thinning_;
};

}  // namespace rim::app
