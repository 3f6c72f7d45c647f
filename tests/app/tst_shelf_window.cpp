// The shelf in the window: looked through, put into a drawing, filled and emptied.
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMimeData>

#include "app/shelf/label_dialog.h"
#include "app/shelf/shelf_dialog.h"
#include "refine_fixture.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;
using namespace rim::app;

namespace {

Drawing bar() { return makeDrawing({polygonThrough({{0, 0}, {100, 0}, {100, 80}, {0, 80}})}); }

struct ShelfFixture : RefineFixture {
  ShelfFixture() : RefineFixture(bar()) { open(); }
  ShelfDialog& shelf() { return *window->findChild<ShelfDialog*>(); }
  QListWidget& list() { return *shelf().findChild<QListWidget*>("shelfList"); }
  void open() {
    window->actions().shelf->trigger();
    QTRY_VERIFY_WITH_TIMEOUT(shelf().ready(), kPatienceMs);
  }
  void press(const char* name) { shelf().findChild<QPushButton*>(name)->click(); }
  QString about() { return shelf().findChild<QLabel*>("shelfAbout")->text(); }
  void search(const QString& words) { shelf().findChild<QLineEdit*>("shelfSearch")->setText(words); }
};

}  // namespace

class TestShelfWindow : public QObject {
  Q_OBJECT

 private slots:
  void init() { qputenv("XDG_DATA_HOME", data_.filePath(QString::number(++count_)).toUtf8()); }

  void itShipsWithPieces() {
    ShelfFixture f;
    QCOMPARE(f.list().count(), 6);
    f.search("SKY bird");
    QCOMPARE(f.list().count(), 1);
    QVERIFY(f.about().contains("60 × 18.9"));
    QVERIFY(f.about().contains("4 nodes"));
    QVERIFY(f.about().contains("Puddlewick"));
    f.search("no such thing");
    QCOMPARE(f.list().count(), 0);
    QVERIFY(!f.shelf().findChild<QPushButton*>("shelfPlace")->isEnabled());
  }

  void aPieceComesIntoTheDrawing() {
    ShelfFixture f;
    f.search("sail");
    f.press("shelfPlace");
    QVERIFY(f.done());
    QCOMPARE(f.now().outlines.size(), 6U);
    QCOMPARE(f.hand().selecting().chosen().size(), 5U);
    f.window->actions().undo->trigger();
    QVERIFY(f.done());
    QCOMPARE(f.now().outlines.size(), 1U);
    // Dragged, it comes to where it is let go.
    const std::unique_ptr<QMimeData> content(f.list().model()->mimeData({f.list().model()->index(0, 0)}));
    QVERIFY(content->hasFormat("image/svg+xml") && content->hasUrls());
    const QPoint at = f.onScreen({30, 40});
    QDragEnterEvent enter(at, Qt::CopyAction, content.get(), Qt::LeftButton, {});
    QApplication::sendEvent(&f.window->bench(), &enter);
    QVERIFY(enter.isAccepted());
    QDropEvent drop(at, Qt::CopyAction, content.get(), Qt::LeftButton, {});
    QApplication::sendEvent(&f.window->bench(), &drop);
    QVERIFY(f.done());
    QCOMPARE(f.now().outlines.size(), 6U);
    Box box;
    for (std::size_t i = 1; i < 6; ++i) box.include(boxOf(f.now().path(i)));
    QVERIFY(distance(lerp(box.low, box.high, 0.5), {30, 40}) < 0.5);
    QVERIFY(std::abs(box.height() - 74) < 1e-3);
  }

  void artworkIsPutThereAndTakenOff() {
    ShelfFixture f;
    QTimer::singleShot(0, qApp, [] {
      auto* dialog = qobject_cast<LabelDialog*>(QApplication::activeModalWidget());
      dialog->findChild<QLineEdit*>("labelName")->setText("Plate & all");
      dialog->findChild<QLineEdit*>("labelTags")->setText("test, , big one");
      dialog->accept();
    });
    f.window->actions().toShelf->trigger();
    QVERIFY(f.window->sentence().contains("is on the shelf"));
    QTRY_COMPARE_WITH_TIMEOUT(f.list().count(), 7, kPatienceMs);
    f.search("big");
    QCOMPARE(f.list().count(), 1);
    QVERIFY(f.about().contains("100 × 80"));
    QVERIFY(f.about().contains("test, big one"));
    answerWith(QMessageBox::RejectRole);
    f.press("shelfOff");
    QCOMPARE(f.list().count(), 1);
    answerWith(QMessageBox::AcceptRole);
    f.press("shelfOff");
    QTRY_COMPARE_WITH_TIMEOUT(f.list().count(), 0, kPatienceMs);
    // Those that shipped do not come back by themselves.
    f.search("");
    QTRY_COMPARE_WITH_TIMEOUT(f.list().count(), 6, kPatienceMs);
    answerWith(QMessageBox::AcceptRole);
    f.press("shelfOff");
    QTRY_COMPARE_WITH_TIMEOUT(f.list().count(), 5, kPatienceMs);
    f.open();
    QCOMPARE(f.list().count(), 5);
  }

  void aPieceIsOpenedByItself() {
    WindowFixture f;
    f.window->actions().shelf->trigger();
    auto* shelf = f.window->findChild<ShelfDialog*>();
    QTRY_VERIFY_WITH_TIMEOUT(shelf->ready(), kPatienceMs);
    QVERIFY2(!shelf->findChild<QPushButton*>("shelfPlace")->isEnabled(), "nothing is open");
    QVERIFY(!f.window->actions().toShelf->isEnabled());
    shelf->findChild<QPushButton*>("shelfOpen")->click();
    QVERIFY(QTest::qWaitFor([&f] { return f.job().drawing && f.session().upToDate(); }, kPatienceMs));
    QTRY_VERIFY_WITH_TIMEOUT(shelf->findChild<QPushButton*>("shelfPlace")->isEnabled(), kPatienceMs);
  }

 private:
  QTemporaryDir data_;
  int count_ = 0;
};

RIM_TEST(TestShelfWindow)
#include "tst_shelf_window.moc"
