#pragma once

#include <QDialog>
#include <QImage>

#include "app/errand.h"
#include "app/preferences.h"
#include "core/io/shelf.h"

class QLabel;
class QLineEdit;
class QListWidget;
class QListWidgetItem;
class QPushButton;

namespace rim::app {

/// The folder of the user's shelf. Where there was none yet it is made, with the pieces that ship.
QString shelfFolder();

/// The shelf: finished artwork to look through, to open, and to put into a drawing by a click or by dragging it there.
class ShelfDialog : public QDialog {
  Q_OBJECT

 public:
  explicit ShelfDialog(const QString& folder, QWidget* parent = nullptr);
  ~ShelfDialog() override;

  /// Reads the folder anew.
  void refresh();
  /// Whether there is a drawing that a piece can be put into, and the unit of lengths.
  void setDrawing(bool drawing, Unit unit);
  /// The same, and comes to the front.
  void showFor(bool drawing, Unit unit);
  bool ready() const { return !reading_.running(); }

 signals:
  void openWanted(const QString& file);
  /// A piece shall come into the drawing that is open.
  void pieceWanted(const QByteArray& svg);
  void refused(const QString& sentence);

 private:
  /// A piece with its small picture.
  struct Shown {
    io::ShelfPiece piece;
    QImage picture;
  };
  void fill();
  const Shown* chosen() const;
  void showChosen();
  void takeOff();

  QString folder_;
  bool drawing_ = false;
  Unit unit_ = Unit::Millimetre;
  std::vector<Shown> all_;
  QLineEdit* search_;
  QListWidget* list_;
  QLabel* about_;
  QPushButton* place_;
  QPushButton* open_;
  QPushButton* off_;
  Errand reading_;
};

}  // namespace rim::app
