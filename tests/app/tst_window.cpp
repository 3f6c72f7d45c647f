// The main job in the real window: open, set, measure, export, undo; and what bad input does.

#include <QCheckBox>
#include <QClipboard>
#include <QComboBox>
#include <QDropEvent>
#include <QFileDialog>
#include <QLabel>
#include <QLineEdit>
#include <QMimeData>
#include <QPushButton>
#include <QSpinBox>
#include <QTimer>

#include "app/steps/export/export_room.h"
#include "app/widgets/threshold_slider.h"
#include "core/io/export.h"
#include "support/test_list.h"
#include "window_fixture.h"

using namespace rim;
using namespace rim::app;
using namespace rim::test;

namespace {

void type(QLineEdit* field, const QString& text) {
  field->setFocus();
  field->selectAll();
  QTest::keyClicks(field, text);
  QTest::keyClick(field, Qt::Key_Return);
}

}  // namespace

class TestWindow : public QObject {
  Q_OBJECT

 private slots:
  void anEmptyWindowSaysWhatToDo() {
    WindowFixture f;
    QVERIFY(!f.session().hasPicture());
    QVERIFY(!f.window->room<ExportRoom>().actions().exportFile->isEnabled());
    QVERIFY(f.window->room<ExportRoom>().actions().exportFile->toolTip().contains("Open a picture or a drawing first"));
    QVERIFY(!f.find<QLineEdit>("width")->isEnabled());
  }

  void itFitsASmallScreenInEveryStep() {
    WindowFixture f(true);
    QVERIFY(f.open(demoFile("badge.jpg")));
    for (const auto step : {Step::Picture, Step::Colours, Step::Trace, Step::Mend, Step::Export}) {
      f.window->showStep(step);
      QCoreApplication::processEvents();
      QVERIFY2(f.window->minimumSizeHint().width() <= 1280,
               qPrintable(QString::number(f.window->minimumSizeHint().width())));
    }
  }

  void aPictureIsTracedAndMeasured() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.jpg")));
    const Counts counts = countsOf(pathsOf(*f.job().tracing));
    QVERIFY(counts.outlines > 20);
    QCOMPARE(f.find<QLabel>("outlines")->text(), QString::number(counts.outlines));
    QCOMPARE(f.find<QLabel>("closed")->text(), QString::number(counts.outlines));
    QCOMPARE(f.find<QLabel>("open")->text(), "0");
    QCOMPARE(f.find<QLabel>("nodes")->text(), QString::number(counts.nodes));
    QVERIFY(f.window->windowTitle().startsWith("badge.jpg"));
  }

  void aBadPictureLeavesTheJobAsItWas_data() {
    QTest::addColumn<QString>("file");
    for (const char* name :
         {"truncated.png", "no-bytes.png", "not-a-picture.png", "claims-60000.png", "none.png", "."}) {
      QTest::newRow(name) << testPicture(name);
    }
  }
  void aBadPictureLeavesTheJobAsItWas() {
    QFETCH(QString, file);
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    const auto picture = f.job().picture.grey;
    const auto tracing = f.job().tracing;
    QVERIFY(!f.open(file));
    QVERIFY(!f.window->sentence().isEmpty());
    QVERIFY(f.job().picture.grey == picture && f.job().tracing == tracing);
  }

  void aDragOfTheThresholdIsFollowedLiveAndIsOneStep() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    const auto before = f.job().trace;
    auto* slider = f.find<ThresholdSlider>("threshold");
    QSignalSpy borders(&f.session(), &Session::bordersFollowed);
    QTest::mousePress(slider, Qt::LeftButton, {}, {60, 40});
    for (int x = 70; x < 200; x += 10) {
      QTest::mouseMove(slider, {x, 40});
      QVERIFY(borders.wait(5000) || f.session().upToDate());
    }
    QTest::mouseRelease(slider, Qt::LeftButton, {}, {190, 40});
    QVERIFY(borders.size() >= 5);
    QVERIFY(f.settle());
    QVERIFY(f.job().trace.threshold.has_value());
    QCOMPARE(f.job().threshold, *f.job().trace.threshold);
    QCOMPARE(f.find<QSpinBox>("level")->value(), *f.job().trace.threshold);
    f.window->actions().undo->trigger();
    QVERIFY(f.job().trace == before);
    QVERIFY(f.session().upToDate());  // no need to trace again
  }

  void keysSetTheThresholdAndTheInk() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    QWidget* bench = &f.window->bench();
    bench->setFocus();
    const int automatic = f.job().threshold;
    QTest::keyClick(bench, ']');
    QCOMPARE(f.job().trace.threshold.value_or(-1), automatic + 1);
    QTest::keyClick(bench, Qt::Key_A);
    QVERIFY(!f.job().trace.threshold.has_value());
    QVERIFY(f.find<QPushButton>("automatic")->isChecked());
    const bool light = f.job().trace.lightIsInk;
    QTest::keyClick(bench, Qt::Key_L);
    QCOMPARE(f.job().trace.lightIsInk, !light);
    QCOMPARE(f.find<QCheckBox>("lightIsInk")->isChecked(), !light);
    QTest::keyClick(bench, Qt::Key_Z, Qt::ControlModifier);
    QCOMPARE(f.job().trace.lightIsInk, light);
    QTest::keyClick(bench, Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
    QCOMPARE(f.job().trace.lightIsInk, !light);
    QVERIFY(f.settle());
  }

  void everySettingOfTheTraceCanBeTakenBack() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    const trace::TraceSettings before = f.job().trace;
    f.find<QDoubleSpinBox>("tolerance")->setValue(1.2);
    f.find<QDoubleSpinBox>("smallest")->setValue(60);
    f.find<QSlider>("corners")->setValue(80);
    QCOMPARE(f.job().trace.tolerancePx, 1.2);
    QCOMPARE(f.job().trace.minAreaPx2, 60.0);
    QCOMPARE(f.job().trace.cornerReadiness, 80.0);
    for (int i = 0; i < 3; ++i) f.window->actions().undo->trigger();
    QVERIFY(f.job().trace == before);
    QCOMPARE(f.find<QDoubleSpinBox>("tolerance")->value(), before.tolerancePx);
    QVERIFY(f.settle());
  }

  void theTypedWidthIsTheWidthOfTheFile_data() {
    QTest::addColumn<QString>("field");
    QTest::addColumn<QString>("typed");
    QTest::addColumn<double>("mm");
    QTest::newRow("mm") << "width"
                        << "80" << 80.0;
    QTest::newRow("inches") << "width"
                            << "3 1/2 in" << 88.9;
    QTest::newRow("height") << "height"
                            << "123,457" << 123.457;
  }
  void theTypedWidthIsTheWidthOfTheFile() {
    QFETCH(QString, field);
    QFETCH(QString, typed);
    QFETCH(double, mm);
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.jpg")));
    const Box was = boxOf(pathsOf(job::drawingOf(f.job())));
    type(f.find<QLineEdit>(qPrintable(field)), typed);
    for (const io::FileKind kind : {io::FileKind::Dxf, io::FileKind::Svg}) {
      const Box box = boxOf(pathsOf(io::drawingFor(f.job(), kind, {})));
      QVERIFY(qAbs((field == "width" ? box.width() : box.height()) - mm) < 1e-3);
      QVERIFY(qAbs(box.width() / box.height() - was.width() / was.height()) < 1e-6);
      QVERIFY(qAbs(f.find<QLineEdit>("width")->text().toDouble() - box.width()) < 1e-3);
      QVERIFY(qAbs(f.find<QLineEdit>("height")->text().toDouble() - box.height()) < 1e-3);
    }
    f.window->actions().undo->trigger();
    QVERIFY(qAbs(boxOf(pathsOf(job::drawingOf(f.job()))).width() - was.width()) < 1e-9);
  }

  void theSizeStaysWhenTheThresholdMoves() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.jpg")));
    type(f.find<QLineEdit>("width"), "50");
    f.find<QSpinBox>("level")->setValue(70);
    QVERIFY(f.settle());
    QVERIFY(qAbs(boxOf(pathsOf(job::drawingOf(f.job()))).width() - 50) < 1e-9);
  }

  void aSizeThatIsNoneIsRefused() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.jpg")));
    const QString before = f.find<QLineEdit>("width")->text();
    for (const char* text : {"wide", "0", "99999999"}) {
      type(f.find<QLineEdit>("width"), text);
      QVERIFY(!f.window->sentence().isEmpty());
      QCOMPARE(f.find<QLineEdit>("width")->text(), before);
    }
    QVERIFY(f.job().size == job::SizeWish{});
  }

  void inchesAreShownAndRemembered() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.jpg")));
    const double mm = f.find<QLineEdit>("width")->text().toDouble();
    f.find<QPushButton>("unit")->click();
    QVERIFY(qAbs(f.find<QLineEdit>("width")->text().toDouble() * 25.4 - mm) < 1e-3);
    f.window->close();
    QVERIFY(loadPreferences().unit == Unit::Inch);
    QCOMPARE(loadPreferences().recentFiles, QStringList{demoFile("badge.jpg")});
  }

  void aPictureIsPasted() {
    WindowFixture f;
    QImage image(50, 40, QImage::Format_RGB32);
    image.fill(Qt::white);
    for (int y = 10; y < 30; ++y) {
      for (int x = 10; x < 30; ++x) image.setPixel(x, y, qRgb(0, 0, 0));
    }
    QApplication::clipboard()->setImage(image);
    QTest::keyClick(&f.window->bench(), Qt::Key_V, Qt::ControlModifier);
    QVERIFY(QTest::qWaitFor([&] { return f.session().hasPicture() && !f.session().busy(); }, kPatienceMs));
    QCOMPARE(f.job().picture.width(), 50);
    QCOMPARE(f.job().tracing->outlines.size(), 1U);
  }

  void pastingNothingIsSaid() {
    WindowFixture f;
    QApplication::clipboard()->setText("just words");
    f.window->actions().paste->trigger();
    QVERIFY(f.window->sentence().contains("clipboard"));
    QVERIFY(!f.session().hasPicture());
  }

  void aFileIsDroppedOnTheBench() {
    WindowFixture f;
    QMimeData data;
    data.setUrls({QUrl::fromLocalFile(demoFile("badge.png"))});
    QDragEnterEvent enter(QPoint(100, 100), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(&f.window->bench(), &enter);
    QVERIFY(enter.isAccepted());
    QDropEvent drop(QPointF(100, 100), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(&f.window->bench(), &drop);
    QVERIFY(QTest::qWaitFor([&] { return f.session().hasPicture() && !f.session().busy(); }, kPatienceMs));
    QCOMPARE(f.job().picture.name, std::string("badge.png"));
  }

  void exportingThroughTheDialogueWritesTheFile_data() {
    QTest::addColumn<int>("kind");
    QTest::addColumn<QString>("ending");
    QTest::newRow("DXF 2000") << 0 << "dxf";
    QTest::newRow("DXF R12") << 1 << "dxf";
    QTest::newRow("SVG") << 2 << "svg";
  }
  void exportingThroughTheDialogueWritesTheFile() {
    QFETCH(int, kind);
    QFETCH(QString, ending);
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.jpg")));
    f.find<QComboBox>("kind")->setCurrentIndex(kind);
    const QString file = f.folder.filePath("out." + ending);
    QTimer::singleShot(0, f.window.get(), [&f, file] {
      auto* dialog = f.find<QFileDialog>("exportDialog");
      QVERIFY(dialog != nullptr);
      dialog->selectFile(file);
      QMetaObject::invokeMethod(dialog, "accept");
    });
    QTest::keyClick(&f.window->bench(), Qt::Key_E, Qt::ControlModifier);
    QVERIFY(f.settle());
    QVERIFY(QFile::exists(file));
    QVERIFY2(f.window->sentence().contains("out." + ending), qPrintable(f.window->sentence()));
  }

  void aFailedExportIsSaid() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.jpg")));
    f.session().exportTo("/nowhere/at/all.dxf", {});
    QVERIFY(f.settle());
    QVERIFY2(f.window->sentence().startsWith("all.dxf: "), qPrintable(f.window->sentence()));
  }

  void aBlankPictureHasNothingToExport() {
    WindowFixture f;
    QVERIFY(f.open(testPicture("all-white.png")));
    QCOMPARE(f.find<QLabel>("outlines")->text(), "0");
    QVERIFY(!f.window->room<ExportRoom>().actions().exportFile->isEnabled());
    QVERIFY(f.window->room<ExportRoom>().actions().exportFile->toolTip().contains("no outlines"));
  }

  void openingAnotherPictureCanBeTakenBack() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    QVERIFY(f.open(testPicture("plain.png")));
    f.window->actions().undo->trigger();
    QCOMPARE(f.job().picture.name, std::string("badge.png"));
    QVERIFY(f.session().upToDate());
  }

  void aLightDrawingOnDarkStartsWithLightInk() {
    WindowFixture f;
    QImage image(60, 60, QImage::Format_RGB32);
    image.fill(Qt::black);
    for (int y = 20; y < 40; ++y) {
      for (int x = 20; x < 40; ++x) image.setPixel(x, y, qRgb(255, 255, 255));
    }
    QVERIFY(image.save(f.folder.filePath("light.png")));
    QVERIFY(f.open(f.folder.filePath("light.png")));
    QVERIFY(f.job().trace.lightIsInk);
    QCOMPARE(f.job().tracing->outlines.size(), 1U);
  }
};

RIM_TEST(TestWindow)
#include "tst_window.moc"
