#pragma once

#include <QDialog>

#include "core/io/shelf.h"

class QLineEdit;

namespace rim::app {

/// Asks what is to be said about a piece that is put on the shelf.
class LabelDialog : public QDialog {
  Q_OBJECT

 public:
  /// Begins with this name and source.
  LabelDialog(const QString& name, const QString& source, QWidget* parent = nullptr);
  io::ShelfLabel label() const;

 private:
  QLineEdit* name_;
  QLineEdit* tags_;
  QLineEdit* source_;
};

}  // namespace rim::app
