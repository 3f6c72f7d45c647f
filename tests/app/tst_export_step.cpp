#include <QCheckBox>
#include <QClipboard>
#include <QComboBox>
#include <QDir>
#include <QFile>
#include <QInputDialog>
#include <QLabel>
#include <QMimeData>
#include <QPushButton>
#include <QTest>

#include "app/steps/export/drag_out.h"
#include "app/steps/export/export_panel.h"
#include "app/steps/export/sketch_dialog.h"
#include "app/steps/export/solid_view.h"
#include "app/steps/refine/hand/handwork.h"
#include "app/steps/refine/hand/select_tool.h"
#include "app/steps/refine/refine_panel.h"
#include "app/steps/refine/refine_room.h"
#include "app/widgets/length_field.h"
#include "app/widgets/svg_mime.h"
#include "core/geometry/segment.h"
#include "core/io/deliver.h"
#include "core/io/job/job_file.h"
#include "core/refine/edit/ends.h"
#include "support/drawings.h"
#include "support/spoil.h"
#include "support/test_list.h"
#include "window_fixture.h"

using namespace rim;
using namespace rim::test;
using namespace rim::app;

class TestExportStep : public QObject {
  Q_OBJECT

 private slots:
  void aFileIsReadBackAndShownWhatIsInIt() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    f.window->show();
    f.window->showStep(Step::Export);
    QVERIFY(!f.find<QWidget>("receipt")->isVisible());
    const QString file = f.folder.filePath("badge.dxf");
    f.session().exportTo(file, {});
    QVERIFY(f.settle());
    QTRY_VERIFY_WITH_TIMEOUT(f.find<QWidget>("receipt")->isVisible(), kPatienceMs);
    QVERIFY(f.find<QLabel>("receiptTitle")->text().contains("badge.dxf is clean"));
    const QString text = f.find<QLabel>("receiptText")->text();
    for (const char* word : {"DXF 2000", "closed, 0 open, 0 doubled, 0 crossing", "thinnest web", "smallest gap"})
      QVERIFY2(text.contains(word), word);
    // Thin places are looked at from the receipt.
    const double before = f.window->bench().viewport().scale;
    emit f.find<QLabel>("receiptText")->linkActivated("web");
    QVERIFY(f.window->bench().viewport().scale > before);
    f.find<QPushButton>("saveReceipt")->click();
    QFile saved(file + ".receipt.txt");
    QVERIFY(saved.open(QIODevice::ReadOnly));
    QVERIFY(saved.readAll().endsWith("clean\n"));
  }

  void whatIsNotCleanIsSaidWithAWayBack() {
    WindowFixture f;
    Path open = polygonThrough({{0, 0}, {30, 0}, {30, 20}, {0, 20}});
    open.closed = false;
    open.segments.pop_back();
    const Drawing drawing = makeDrawing({open, circlePath({60, 10}, 8), circlePath({64, 10}, 8)});
    const QString source = f.folder.filePath("bad.svg");
    io::writeDrawing(drawing, source.toStdString(), {});
    QVERIFY(f.openDrawing(source));
    f.window->show();
    f.window->showStep(Step::Export);
    f.session().exportTo(f.folder.filePath("bad.dxf"), {});
    QVERIFY(f.settle());
    QTRY_VERIFY_WITH_TIMEOUT(f.find<QLabel>("receiptTitle")->text().contains("not clean"), kPatienceMs);
    QVERIFY(f.find<QLabel>("receiptText")->text().contains("cross"));
    QVERIFY(f.window->sentence().contains("not clean"));
    emit f.find<QLabel>("receiptText")->linkActivated("mend");
    QVERIFY(f.find<QWidget>("totals")->isVisible());
  }

  void filesForMachinesAreWishedByName() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    f.window->showStep(Step::Export);
    auto* preset = f.find<QComboBox>("preset");
    QCOMPARE(preset->count(), 5);  // as set below, and four machines
    preset->setCurrentIndex(3);
    emit preset->activated(3);
    QCOMPARE(f.job().file->format, job::FileFormat::DxfR12);
    QCOMPARE(f.job().file->settings.origin, job::OriginAt::LowerLeft);
    QCOMPARE(f.find<QComboBox>("kind")->currentIndex(), 1);
    const QString file = f.folder.filePath("plate.dxf");
    f.session().exportTo(file, *f.job().file);
    QVERIFY(f.settle());
    const io::ReadResult read = io::readDrawing(file.toStdString());
    const Box box = boxOf(pathsOf(read.drawing));
    QVERIFY2(length(box.low) < 1e-6, "it begins at the lower left");
    QFile written(file);
    QVERIFY(written.open(QIODevice::ReadOnly));
    QVERIFY(written.readAll().contains("AC1009"));
    // What is chosen otherwise has no name any more; undo brings it back.
    f.find<QComboBox>("originAt")->setCurrentIndex(2);
    QCOMPARE(preset->currentIndex(), 0);
    QCOMPARE(f.job().file->settings.origin, job::OriginAt::Centre);
    f.window->actions().undo->trigger();
    QCOMPARE(f.job().file, std::optional<job::FileWish>());
    QVERIFY2(f.find<QComboBox>("unit")->isEnabled(), "the last wish stands for the next job");
  }

  void ownWaysAreKeptAndDropped() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    f.window->showStep(Step::Export);
    f.find<QComboBox>("kind")->setCurrentIndex(2);
    f.find<QComboBox>("page")->setCurrentIndex(1);
    QCOMPARE(f.job().file->settings.marginMm, std::optional(5.0));
    const job::FileWish wish = *f.job().file;
    const auto answerWith = [](const QString& name) {
      QTimer::singleShot(0, qApp, [name] {
        auto* dialog = qobject_cast<QInputDialog*>(QApplication::activeModalWidget());
        dialog->setTextValue(name);
        dialog->accept();
      });
    };
    auto* keep = f.find<QPushButton>("keepPreset");
    answerWith("Router");
    keep->click();
    QVERIFY(f.window->sentence().contains("Router is there already"));
    answerWith("Glass, 3 mm / soft");
    keep->click();
    auto* preset = f.find<QComboBox>("preset");
    QCOMPARE(preset->count(), 6);
    QCOMPARE(preset->currentText(), QString("Glass, 3 mm / soft"));
    emit preset->activated(1);
    QVERIFY(!(*f.job().file == wish));
    emit preset->activated(5);
    QCOMPARE(*f.job().file, wish);
    keep->click();  // drops it
    QCOMPARE(preset->count(), 5);
  }

  void everyKindIsWritten_data() {
    QTest::addColumn<int>("kind");
    QTest::addColumn<QByteArray>("begins");
    QTest::newRow("pdf") << 3 << QByteArray("%PDF-");
    QTest::newRow("eps") << 4 << QByteArray("%!PS-Adobe");
    QTest::newRow("png") << 5 << QByteArray("\x89PNG");
  }
  void everyKindIsWritten() {
    QFETCH(int, kind);
    QFETCH(QByteArray, begins);
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    f.window->showStep(Step::Export);
    f.find<QComboBox>("kind")->setCurrentIndex(kind);
    QVERIFY(!f.find<QComboBox>("form")->isEnabled());
    QVERIFY(f.find<QComboBox>("fill")->isVisibleTo(f.window.get()));
    const QString file = f.folder.filePath("badge" + QString::fromStdString(io::endingFor(f.job().file->format)));
    f.session().exportTo(file, *f.job().file);
    QVERIFY(f.settle());
    QFile written(file);
    QVERIFY(written.open(QIODevice::ReadOnly));
    QVERIFY(written.readAll().startsWith(begins));
    QVERIFY(f.window->sentence().contains("is written"));
    QVERIFY2(!f.find<QWidget>("receipt")->isVisible(), "no machine reads it");
  }

  void eachLayerGoesToAFileOfItsOwn() {
    WindowFixture f(true);
    QVERIFY(f.open(demoFile("badge.png")));
    f.window->showStep(Step::Export);
    const std::size_t layers = job::outlinesOf(f.job())->layers.size();
    QVERIFY(layers > 1);
    f.find<QCheckBox>("fileEach")->click();
    QVERIFY(f.job().file->fileEach);
    f.session().exportTo(f.folder.filePath("badge.dxf"), *f.job().file);
    QVERIFY(f.settle());
    const QStringList files = QDir(f.folder.path()).entryList({"badge-*.dxf"});
    QVERIFY2(files.size() > 1, qPrintable(files.join(" ")));
    QVERIFY(f.window->sentence().contains("files are written"));
  }

  void onlyWhatIsChosenIsWritten() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    const RefineActions& actions = f.window->room<RefineRoom>().actions();
    QVERIFY2(!actions.hand.exportChosen->isEnabled(), "nothing is chosen");
    f.window->showStep(Step::Refine);
    auto& hand = f.window->findChild<RefinePanel*>()->handwork();
    const auto& outlines = job::outlinesOf(f.job())->outlines;
    hand.selecting().choose({outlines[0].id, outlines[1].id});
    QVERIFY(actions.hand.exportChosen->isEnabled());
    const QString file = f.folder.filePath("these.svg");
    chooseFile(file);
    QTest::keyClick(f.window.get(), Qt::Key_E, Qt::ControlModifier | Qt::ShiftModifier);
    QVERIFY(f.settle());
    QTRY_VERIFY_WITH_TIMEOUT(QFile::exists(file), kPatienceMs);
    QCOMPARE(io::readDrawing(file.toStdString()).drawing.outlines.size(), 2U);
  }

  void pathsAndLayersAreWished() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    f.window->show();
    f.window->showStep(Step::Export);
    auto* kind = f.find<QComboBox>("kind");
    auto* element = f.find<QComboBox>("element");
    kind->setCurrentIndex(static_cast<int>(job::FileFormat::Dxf2000));
    QVERIFY2(!element->isVisible(), "a DXF has no paths that hold several");
    kind->setCurrentIndex(static_cast<int>(job::FileFormat::Svg));
    QVERIFY(element->isVisible());
    element->setCurrentIndex(static_cast<int>(job::SvgElement::Part));
    f.find<QComboBox>("layersBy")->setCurrentIndex(1);
    QVERIFY(f.job().file->settings.element == job::SvgElement::Part && f.job().file->settings.byRole);
    const QString file = f.folder.filePath("by-role.svg");
    f.session().exportTo(file, *f.job().file);
    QVERIFY(f.settle());
    QFile written(file);
    QVERIFY(written.open(QIODevice::ReadOnly));
    const QByteArray text = written.readAll();
    QVERIFY(text.contains("<title>outside</title>") && text.contains("<title>inside</title>"));
  }

  void fewerArcsWithinMore() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    f.window->show();
    f.window->showStep(Step::Export);
    auto* within = f.find<LengthField>("fileWithin");
    QVERIFY(within->isVisible());
    const auto arcs = [&f] {
      const job::FileWish wish = f.window->findChild<ExportPanel*>()->wish();
      return countsOf(pathsOf(io::drawingFor(f.job(), io::FileKind::Dxf, io::settingsFor(wish)))).arcs;
    };
    const std::size_t before = arcs();
    within->selectAll();
    QTest::keyClicks(within, "0.2");
    QTest::keyClick(within, Qt::Key_Return);
    QVERIFY(f.job().file.has_value());
    QCOMPARE(f.job().file->settings.toleranceMm, 0.2);
    QVERIFY(arcs() < before);
    const QString shown = f.find<QLabel>("summary")->text();
    QVERIFY2(shown.contains(QString::number(arcs()) + " arcs"), qPrintable(shown));
    f.find<QComboBox>("kind")->setCurrentIndex(static_cast<int>(job::FileFormat::Svg));
    QVERIFY2(!within->isVisible(), "curves stay curves");
  }

  void theDrawingIsCopiedAndDragged() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    QTest::keyClick(f.window.get(), Qt::Key_C, Qt::ControlModifier | Qt::ShiftModifier);
    const QByteArray svg = svgIn(*QApplication::clipboard()->mimeData());
    const Drawing copied = io::readDrawing(svg.toStdString(), "x.svg").drawing;
    QCOMPARE(copied.outlines.size(), job::outlinesOf(f.job())->outlines.size());
    const std::unique_ptr<QMimeData> content(f.window->findChild<DragOut*>()->content());
    QVERIFY(content && content->urls().size() == 1);
    const QString file = content->urls().first().toLocalFile();
    QVERIFY(file.endsWith("badge.dxf"));
    QCOMPARE(io::readDrawing(file.toStdString()).drawing.outlines.size(), copied.outlines.size());
  }

  /// What is copied is what would be written, whatever is wished for.
  void theCopyIsTheFile() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    job::FileWish wish;
    wish.format = job::FileFormat::Svg;
    const QString file = f.folder.filePath("copied.svg");
    const auto isTheFile = [&] {
      f.session().edit("File", {}, [&wish](job::Job& job) { job.file = wish; });
      if (!f.settle()) return false;
      QTest::keyClick(f.window.get(), Qt::Key_C, Qt::ControlModifier | Qt::ShiftModifier);
      io::deliverJob(f.job(), file.toStdString(), io::settingsFor(wish));
      QFile written(file);
      return written.open(QIODevice::ReadOnly) && written.readAll() == svgIn(*QApplication::clipboard()->mimeData());
    };
    QVERIFY(isTheFile());
    wish.settings.byRole = true;
    wish.settings.element = job::SvgElement::Part;
    QVERIFY(isTheFile());
    wish.settings.unit = Unit::Inch;
    wish.settings.marginMm = 3;
    wish.settings.filled = false;
    QVERIFY(isTheFile());
  }

  void whatAMachineStumblesOverIsSaidBefore() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    f.window->showStep(Step::Export);
    QVERIFY(!f.find<QLabel>("warnings")->isVisible());
    f.session().edit("Size", {}, [](job::Job& job) { job.size = {job::SizeWish::Of::PictureWidth, 2000}; });
    QVERIFY(f.settle());
    QVERIFY(f.find<QLabel>("warnings")->isVisibleTo(f.window.get()));
    QVERIFY(f.find<QLabel>("warnings")->text().contains("px stand behind a millimetre"));
    f.session().edit("Open", {}, [](job::Job& job) {
      const Outline& first = job::outlinesOf(job)->outlines.front();
      job.refine = refine::withHandwork({}, {refine::madeByHand(markOf(first), refine::partedAt(first.path(), 0))});
    });
    QVERIFY(f.settle());
    QVERIFY(f.find<QLabel>("warnings")->text().contains("is open"));
  }

  void theSketchIsCheckedAndTheSolidSaved() {
    WindowFixture f;
    QVERIFY(f.openDrawing(demoFile("spool-plate.dxf")));
    f.window->showStep(Step::Export);
    QTest::keyClick(f.window.get(), Qt::Key_K, Qt::ControlModifier);
    auto* dialog = f.find<SketchDialog>("sketchDialog");
    QVERIFY(dialog != nullptr);
    QVERIFY(QTest::qWaitFor([dialog] { return dialog->ready(); }, kPatienceMs));
    auto* text = dialog->findChild<QLabel*>("sketchText");
    QVERIFY2(text->text().contains("open and were left out"), qPrintable(text->text()));
    QVERIFY(text->text().contains("cm³"));
    // Turned by the pointer and by keys.
    auto* view = dialog->findChild<SolidView*>();
    const double turn = view->sight().turn;
    QTest::mousePress(view, Qt::LeftButton, {}, {100, 100});
    QTest::mouseMove(view, {160, 100});
    QTest::mouseRelease(view, Qt::LeftButton, {}, {160, 100});
    QTest::keyClick(view, Qt::Key_Right);
    QVERIFY(view->sight().turn > turn);
    auto* thickness = dialog->findChild<LengthField*>("thickness");
    thickness->selectAll();
    QTest::keyClicks(thickness, "6");
    QTest::keyClick(thickness, Qt::Key_Return);
    QVERIFY(!dialog->ready());
    QVERIFY(QTest::qWaitFor([dialog] { return dialog->ready(); }, kPatienceMs));
    const QString file = f.folder.filePath("plate.stl");
    QVERIFY(dialog->save(file));
    QVERIFY(QFileInfo(file).size() > 84);
    QVERIFY(!dialog->save("/nowhere/at/all.stl"));
    QVERIFY(text->text().contains("all.stl"));
  }

  void theWishIsInTheJob() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    f.window->showStep(Step::Export);
    f.find<QComboBox>("unit")->setCurrentIndex(1);
    const QString file = f.folder.filePath("wish.snugrim");
    f.session().saveTo(file);
    QVERIFY(f.settle());
    QCOMPARE(io::loadJob(file.toStdString()).file, f.job().file);
    QCOMPARE(io::loadJob(file.toStdString()).file->settings.unit, Unit::Inch);
  }

  /// What was refined beyond the picture stands on a page that holds it.
  void refinedOutlinesAreExportedWhole() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    f.session().edit("Ring", {}, [](job::Job& job) { job.refine = {refine::AddRing{6, 4, refine::Joins::Round}}; });
    QVERIFY(f.settle());
    const QString file = f.folder.filePath("ringed.svg");
    f.session().exportTo(file, {});
    QVERIFY(f.settle());
    const Drawing read = io::readDrawing(file.toStdString()).drawing;
    const Box box = boxOf(pathsOf(read));
    QVERIFY(box.low.x >= -1e-6 && box.low.y >= -1e-6 && box.high.x <= read.pageWidth + 1e-6);
    QVERIFY(std::abs(box.width() - boxOf(pathsOf(job::drawingOf(f.job()))).width()) < 0.01);
  }
};

RIM_TEST(TestExportStep)
#include "tst_export_step.moc"
