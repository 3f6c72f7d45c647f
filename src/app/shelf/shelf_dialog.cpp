#include "app/shelf/shelf_dialog.h"

#include <QDir>
#include <QFile>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMessageBox>
#include <QMimeData>
#include <QPushButton>
#include <QStandardPaths>
#include <QUrl>
#include <QVBoxLayout>

#include "app/start/thumbnails.h"
#include "app/widgets/counted.h"
#include "app/widgets/length_text.h"
#include "app/widgets/panel_parts.h"
#include "app/widgets/svg_mime.h"

namespace rim::app {
namespace {

constexpr int kWhich = Qt::UserRole;
constexpr int kFile = Qt::UserRole + 1;

QByteArray bytesIn(const QString& file) {
  QFile svg(file);
  return svg.open(QIODevice::ReadOnly) ? svg.readAll() : QByteArray();
}

QString textOf(const std::string& text) { return QString::fromStdString(text); }

QString tagsOf(const io::ShelfPiece& piece) {
  QStringList tags;
  for (const std::string& tag : piece.label.tags) tags << textOf(tag);
  return tags.join(", ");
}

/// Whether every word that was typed is somewhere in the piece's name and tags, or also in what is said of its source.
bool matches(const io::ShelfPiece& piece, const QString& words, bool inSource) {
  const QString all =
      textOf(piece.label.name) + '\n' + tagsOf(piece) + (inSource ? '\n' + textOf(piece.label.source) : QString());
  const QStringList wanted = words.split(' ', Qt::SkipEmptyParts);
  return std::all_of(wanted.begin(), wanted.end(),
                     [&all](const QString& word) { return all.contains(word, Qt::CaseInsensitive); });
}

/// Pieces are dragged as what they are: SVG, and as their files.
class PieceList : public QListWidget {
 protected:
  QStringList mimeTypes() const override { return {"image/svg+xml", "text/uri-list"}; }
  QMimeData* mimeData(const QList<QListWidgetItem*>& items) const override {
    if (items.isEmpty()) return nullptr;
    const QString file = items.first()->data(kFile).toString();
    QMimeData* content = svgContent(bytesIn(file));
    content->setUrls({QUrl::fromLocalFile(file)});
    return content;
  }
};

}  // namespace

QString shelfFolder() {
  const QString folder = QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) + "/snugrim/shelf";
  if (QDir(folder).exists() || !QDir().mkpath(folder)) return folder;
  for (const QString& name : QDir(":/demo/shelf").entryList({"*.svg"})) {
    const QString file = folder + "/" + name;
    // What ships inside the application is read-only, and so would be its copy.
    if (QFile::copy(":/demo/shelf/" + name, file))
      QFile::setPermissions(file, QFileDevice::ReadOwner | QFileDevice::WriteOwner | QFileDevice::ReadGroup);
  }
  return folder;
}

ShelfDialog::ShelfDialog(const QString& folder, QWidget* parent) : QDialog(parent), folder_(folder) {
  setWindowTitle(tr("Shelf"));
  setObjectName("shelfDialog");
  constexpr QSize kSize(680, 560);
  resize(kSize);
  auto* column = new QVBoxLayout(this);
  search_ = new QLineEdit;
  search_->setObjectName("shelfSearch");
  search_->setPlaceholderText(tr("Name, tag or source"));
  search_->setAccessibleName(tr("Search the shelf"));
  search_->setClearButtonEnabled(true);
  column->addWidget(search_);
  list_ = new PieceList;
  list_->setObjectName("shelfList");
  list_->setAccessibleName(tr("Pieces on the shelf"));
  list_->setViewMode(QListView::IconMode);
  list_->setIconSize(kThumbnailSize);
  constexpr QSize kRoom(24, 44);
  list_->setGridSize(kThumbnailSize + kRoom);
  list_->setResizeMode(QListView::Adjust);
  list_->setMovement(QListView::Static);
  list_->setDragEnabled(true);
  list_->setWordWrap(true);
  column->addWidget(list_, 1);
  about_ = addText(column);
  about_->setObjectName("shelfAbout");
  auto* row = new QHBoxLayout;
  place_ = addButton(row, "shelfPlace", tr("&Into the drawing"),
                     tr("Puts it into the drawing that is open, chosen, to be placed and sized"));
  place_->setProperty("role", "main");
  open_ = addButton(row, "shelfOpen", tr("&Open it"), tr("Opens it as a job of its own"));
  row->addStretch(1);
  off_ = addButton(row, "shelfOff", tr("&Take it off"), tr("Deletes its file from the shelf's folder"));
  column->addLayout(row);
  QString shown = QDir::toNativeSeparators(folder);
  if (shown.startsWith(QDir::homePath() + "/")) shown.replace(0, QDir::homePath().size(), "~");
  addText(column, tr("The shelf is a folder of SVG files, which you can fill yourself: %1").arg(shown))
      ->setTextInteractionFlags(Qt::TextSelectableByMouse);
  connect(search_, &QLineEdit::textChanged, this, &ShelfDialog::fill);
  connect(list_, &QListWidget::currentItemChanged, this, &ShelfDialog::showChosen);
  connect(list_, &QListWidget::itemActivated, this, [this] { (drawing_ ? place_ : open_)->click(); });
  connect(place_, &QPushButton::clicked, this, [this] {
    if (const Shown* one = chosen()) emit pieceWanted(bytesIn(QString::fromStdString(one->piece.file.string())));
  });
  connect(open_, &QPushButton::clicked, this, [this] {
    if (const Shown* one = chosen()) emit openWanted(QString::fromStdString(one->piece.file.string()));
  });
  connect(off_, &QPushButton::clicked, this, &ShelfDialog::takeOff);
  refresh();
}

ShelfDialog::~ShelfDialog() = default;

void ShelfDialog::refresh() {
  about_->setText(tr("Reading the shelf…"));
  reading_.begin(
      this,
      [folder = folder_](const std::stop_token& stop) {
        std::vector<Shown> shown;
        for (io::ShelfPiece& piece : io::piecesOn(folder.toStdString(), stop)) {
          const QImage picture = thumbnailOf(job::jobOn(piece.drawing, piece.label.name));
          shown.push_back({std::move(piece), picture});
        }
        return shown;
      },
      [this](Outcome<std::vector<Shown>> outcome) {
        if (!outcome.trouble.isEmpty()) emit refused(tr("The shelf cannot be read: %1").arg(outcome.trouble));
        all_ = std::move(outcome.result);
        fill();
      });
}

void ShelfDialog::setDrawing(bool drawing, Unit unit) {
  drawing_ = drawing;
  unit_ = unit;
  if (ready()) showChosen();
}

void ShelfDialog::showFor(bool drawing, Unit unit) {
  setDrawing(drawing, unit);
  show();
  raise();
}

void ShelfDialog::fill() {
  const QString before = list_->currentItem() != nullptr ? list_->currentItem()->data(kFile).toString() : QString();
  list_->clear();
  // What is called or tagged so comes before what only has a source that says so.
  std::vector<std::size_t> order;
  std::vector<std::size_t> bySource;
  for (std::size_t i = 0; i < all_.size(); ++i) {
    if (matches(all_[i].piece, search_->text(), false)) {
      order.push_back(i);
    } else if (matches(all_[i].piece, search_->text(), true)) {
      bySource.push_back(i);
    }
  }
  order.insert(order.end(), bySource.begin(), bySource.end());
  for (const std::size_t i : order) {
    auto* item = new QListWidgetItem(QPixmap::fromImage(all_[i].picture), textOf(all_[i].piece.label.name), list_);
    const QString file = QString::fromStdString(all_[i].piece.file.string());
    item->setData(kWhich, QVariant::fromValue(static_cast<qulonglong>(i)));
    item->setData(kFile, file);
    if (file == before) list_->setCurrentItem(item);
  }
  if (list_->currentItem() == nullptr && list_->count() > 0) list_->setCurrentRow(0);
  showChosen();
}

const ShelfDialog::Shown* ShelfDialog::chosen() const {
  const QListWidgetItem* item = list_->currentItem();
  return item == nullptr ? nullptr : &all_[static_cast<std::size_t>(item->data(kWhich).toULongLong())];
}

void ShelfDialog::showChosen() {
  const Shown* one = chosen();
  place_->setEnabled(one != nullptr && drawing_);
  open_->setEnabled(one != nullptr);
  off_->setEnabled(one != nullptr);
  if (one == nullptr) {
    about_->setText(all_.empty() ? tr("The shelf is empty. File › Put on the shelf keeps what is open.")
                                 : tr("Nothing on the shelf is called or tagged so."));
    return;
  }
  const io::ShelfPiece& piece = one->piece;
  const Box box = boxOf(piece.drawing);
  const Counts counts = countsOf(pathsOf(piece.drawing));
  QStringList lines{tr("%1: %2 × %3, %4, %5")
                        .arg(textOf(piece.label.name), lengthText(box.width(), unit_),
                             lengthWithUnit(box.height(), unit_),
                             counted(counts.outlines, tr("1 outline"), tr("%1 outlines")),
                             counted(counts.nodes, tr("1 node"), tr("%1 nodes")))};
  if (!piece.label.tags.empty()) lines << tr("Tags: %1").arg(tagsOf(piece));
  if (!piece.label.source.empty()) lines << textOf(piece.label.source);
  about_->setText(lines.join('\n'));
}

void ShelfDialog::takeOff() {
  const Shown* one = chosen();
  if (one == nullptr) return;
  const QString file = QString::fromStdString(one->piece.file.string());
  QMessageBox question(QMessageBox::Question, tr("Take it off"),
                       tr("%1 will be deleted from the shelf.").arg(textOf(one->piece.label.name)), QMessageBox::Cancel,
                       this);
  question.setTextFormat(Qt::PlainText);
  QPushButton* gone = question.addButton(tr("&Delete it"), QMessageBox::AcceptRole);
  question.exec();
  if (question.clickedButton() != gone) return;
  if (!QFile::remove(file)) emit refused(tr("%1 cannot be deleted.").arg(QDir::toNativeSeparators(file)));
  refresh();
}

}  // namespace rim::app
