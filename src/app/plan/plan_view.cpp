// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plan/plan_view.h"

#include "app/export/table_copy.h"
#include "app/window/form_parts.h"

#include <QComboBox>
#include <QDoubleSpinBox>
#include <QGridLayout>
#include <QHeaderView>
#include <QScrollArea>
#include <QSpinBox>
#include <QStyledItemDelegate>
#include <QTableView>
#include <QVBoxLayout>

namespace inchpeg::app
{

namespace
{

constexpr int kNarrowestField = 64;

/// Lets the orientation be chosen, not typed.
class OrientationDelegate : public QStyledItemDelegate
{
public:
    using QStyledItemDelegate::QStyledItemDelegate;
    QWidget *createEditor(QWidget *parent, const QStyleOptionViewItem &, const QModelIndex &) const override
    {
        auto *box = new QComboBox(parent);
        box->addItems({QString::fromUtf8(orientationName(Orientation::Flat)),
                       QString::fromUtf8(orientationName(Orientation::Standing))});
        return box;
    }
    void setEditorData(QWidget *editor, const QModelIndex &index) const override
    {
        qobject_cast<QComboBox *>(editor)->setCurrentText(index.data(Qt::EditRole).toString());
    }
    void setModelData(QWidget *editor, QAbstractItemModel *model, const QModelIndex &index) const override
    {
        model->setData(index, qobject_cast<QComboBox *>(editor)->currentText(), Qt::EditRole);
    }
};

void addField(QGridLayout *grid, int row, int column, const QString &text, QWidget *field, int span = 1)
{
    auto *label = new QLabel(text);
    label->setBuddy(field);
    if (field->accessibleName().isEmpty())
        field->setAccessibleName(text);
    if (qobject_cast<QLineEdit *>(field) != nullptr)
        field->setMinimumWidth(kNarrowestField); // gives way in a narrow window
    grid->setColumnStretch(2 * column + 1, 1);
    grid->addWidget(label, row, 2 * column, Qt::AlignLeft | Qt::AlignVCenter);
    grid->addWidget(field, row, 2 * column + 1, 1, span);
}

} // namespace

PlanView::PlanView(ProjectSession &session, PlanPresenter &presenter, QWidget *parent)
    : QWidget(parent), m_session(session), m_presenter(presenter), m_rails(session, presenter)
{
    setObjectName(QStringLiteral("planView"));
    auto *content = new QWidget;
    auto *layout = new QVBoxLayout(content);
    layout->setContentsMargins(18, 10, 18, 10);
    layout->setSpacing(6);
    layout->addWidget(createRails(), 1);
    layout->addWidget(createPlan());
    layout->addWidget(createTest());
    auto *scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setFocusPolicy(Qt::NoFocus);
    scroll->setWidget(content);
    auto *outer = new QVBoxLayout(this);
    outer->setContentsMargins(0, 0, 0, 0);
    outer->addWidget(scroll);
    connectFields();
    connect(&session, &ProjectSession::studyChanged, this, &PlanView::refresh);
    connect(&session, &ProjectSession::readingsChanged, this, &PlanView::refresh);
    connect(&session, &ProjectSession::notationChanged, this, &PlanView::refresh);
    connect(&session, &ProjectSession::lensChanged, this, &PlanView::refresh);
    refresh();
}

QWidget *PlanView::createRails()
{
    auto *box = new QWidget;
    auto *layout = new QVBoxLayout(box);
    layout->setContentsMargins(0, 0, 0, 0);
    m_factorName = lineEdit("factorName", tr("What is varied"), tr("for example nozzle temperature"));
    m_factorUnit = lineEdit("factorUnit", tr("Unit of the levels"), tr("none: names"));
    m_factorUnit->setMaximumWidth(110);
    auto *factor = new QGridLayout;
    addField(factor, 0, 0, tr("What is varied"), m_factorName);
    addField(factor, 0, 1, tr("Unit"), m_factorUnit);
    auto *reference = button("makeReference", tr("Make it the reference"));
    auto *remove = button("removeRail", tr("Remove the rail"));
    auto *top = new QHBoxLayout;
    top->addWidget(heading(tr("Rails: one a condition, the reference on top")), 1);
    top->addWidget(reference);
    top->addWidget(remove);
    layout->addLayout(top);
    layout->addLayout(factor);

    m_railTable = new QTableView;
    m_railTable->setObjectName(QStringLiteral("railTable"));
    m_railTable->setAccessibleName(tr("Rails"));
    m_railTable->setModel(&m_rails);
    m_railTable->setItemDelegateForColumn(RailTableModel::Orientation_, new OrientationDelegate(m_railTable));
    m_railTable->setSelectionBehavior(QAbstractItemView::SelectRows);
    m_railTable->setSelectionMode(QAbstractItemView::SingleSelection);
    m_railTable->verticalHeader()->hide();
    m_railTable->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    m_railTable->horizontalHeader()->setSectionResizeMode(RailTableModel::Material, QHeaderView::Stretch);
    m_railTable->horizontalHeader()->setSectionResizeMode(RailTableModel::Level,
                                                          QHeaderView::ResizeToContents);
    m_railTable->horizontalHeader()->setSectionResizeMode(RailTableModel::Pieces,
                                                          QHeaderView::ResizeToContents);
    m_railTable->setMinimumHeight(130);
    m_railTable->setTabKeyNavigation(false); // Tab goes on to the next field
    offerCopy(*m_railTable);
    layout->addWidget(m_railTable, 1);

    m_newLevels = lineEdit("newLevels", tr("Levels to add"), tr("levels, for example 230, 245, 260"));
    m_newOrientation = new QComboBox;
    m_newOrientation->setObjectName(QStringLiteral("newOrientation"));
    m_newOrientation->setAccessibleName(tr("Printed flat or standing"));
    m_newOrientation->addItems({QString::fromUtf8(orientationName(Orientation::Flat)),
                                QString::fromUtf8(orientationName(Orientation::Standing))});
    m_newMaterial = lineEdit("newMaterial", tr("Material and lot of the new rails"), tr("material, lot"));
    auto *add = button("addLevels", tr("Add rails"));
    connect(add, &QPushButton::clicked, this, &PlanView::addLevels);
    connect(m_newLevels, &QLineEdit::returnPressed, this, &PlanView::addLevels);
    auto *adding = new QHBoxLayout;
    adding->addWidget(m_newLevels, 3);
    adding->addWidget(m_newOrientation);
    adding->addWidget(m_newMaterial, 3);
    adding->addWidget(add);
    layout->addLayout(adding);

    connect(reference, &QPushButton::clicked, this,
            [this] { m_presenter.makeReference(m_rails.railAt(m_railTable->currentIndex().row())); });
    connect(remove, &QPushButton::clicked, this,
            [this] { m_presenter.removeRail(m_rails.railAt(m_railTable->currentIndex().row())); });
    const auto enable = [this, reference, remove] {
        const bool chosen = m_railTable->currentIndex().isValid();
        reference->setEnabled(chosen);
        remove->setEnabled(chosen);
    };
    connect(m_railTable->selectionModel(), &QItemSelectionModel::currentChanged, this, enable);
    connect(&m_rails, &QAbstractItemModel::modelReset, this, enable);
    enable();
    return box;
}

QWidget *PlanView::createPlan()
{
    auto *box = new QWidget;
    auto *layout = new QVBoxLayout(box);
    layout->setContentsMargins(0, 6, 0, 0);
    layout->addWidget(heading(tr("How many pieces")));
    m_pieces = new QSpinBox;
    m_pieces->setObjectName(QStringLiteral("pieces"));
    m_pieces->setRange(1, 200);
    m_difference = new QDoubleSpinBox;
    m_difference->setObjectName(QStringLiteral("smallestDifference"));
    m_difference->setRange(0.5, 500.0);
    m_difference->setDecimals(1);
    m_difference->setSuffix(QStringLiteral(" %"));
    m_scatter = new QDoubleSpinBox;
    m_scatter->setObjectName(QStringLiteral("scatter"));
    m_scatter->setRange(0.1, 100.0);
    m_scatter->setDecimals(1);
    m_scatter->setSuffix(QStringLiteral(" %"));
    for (QAbstractSpinBox *spin :
         {static_cast<QAbstractSpinBox *>(m_pieces), static_cast<QAbstractSpinBox *>(m_difference),
          static_cast<QAbstractSpinBox *>(m_scatter)}) {
        spin->setKeyboardTracking(false);
        spin->setButtonSymbols(QAbstractSpinBox::NoButtons);
    }
    m_scatterSource = softLabel({});
    auto *grid = new QGridLayout;
    addField(grid, 0, 0, tr("Pieces a rail"), m_pieces);
    addField(grid, 0, 1, tr("Difference that matters"), m_difference);
    addField(grid, 1, 0, tr("Expected scatter"), m_scatter);
    grid->addWidget(m_scatterSource, 1, 2, 1, 2);
    layout->addLayout(grid);
    m_planText = new QLabel;
    m_planText->setObjectName(QStringLiteral("planText"));
    m_planText->setWordWrap(true);
    m_planText->setTextInteractionFlags(Qt::TextSelectableByMouse);
    layout->addWidget(m_planText);
    return box;
}

QWidget *PlanView::createTest()
{
    auto *box = new QWidget;
    auto *layout = new QVBoxLayout(box);
    layout->setContentsMargins(0, 6, 0, 0);
    layout->addWidget(heading(tr("The test")));
    m_method = new QComboBox;
    m_method->setObjectName(QStringLiteral("method"));
    m_method->addItem(tr("tension"), static_cast<int>(Method::Tension));
    m_method->addItem(tr("layer adhesion"), static_cast<int>(Method::LayerAdhesion));
    m_shape = new QComboBox;
    m_shape->setObjectName(QStringLiteral("shape"));
    m_shape->addItem(tr("width × thickness"), static_cast<int>(SectionShape::Rectangular));
    m_shape->addItem(tr("round: diameter"), static_cast<int>(SectionShape::Round));
    m_shape->addItem(tr("area"), static_cast<int>(SectionShape::PlainArea));
    m_gaugeLength = lineEdit("gaugeLength", tr("Gauge length"), tr("extensometer"));
    m_gripDistance = lineEdit("gripDistance", tr("Grip distance"), tr("for crosshead"));
    m_capacity = lineEdit("capacity", tr("Gauge's range"), tr("such as 200 kgf"));
    m_gaugeLength->setToolTip(tr("The length over which an extensometer measures, for example 50 mm"));
    m_gripDistance->setToolTip(tr("Between the grips; strain is taken from it where only crosshead travel is "
                                  "recorded"));
    m_capacity->setToolTip(
        tr("The largest force that the gauge can read; a peak there is only \"at least\""));
    auto *grid = new QGridLayout;
    m_toe = new QComboBox;
    m_toe->setObjectName(QStringLiteral("toeCorrection"));
    m_toe->addItems({tr("taken off"), tr("left in")});
    m_modulusFrom = lineEdit("modulusFrom", tr("Modulus range from"), tr("usually 0.05 %"));
    m_modulusTo = lineEdit("modulusTo", tr("Modulus range to"), tr("usually 0.25 %"));
    m_offset = lineEdit("offsetStrain", tr("Yield offset"), tr("usually 0.2 %"));
    m_breakDrop = lineEdit("breakDrop", tr("Break drop"), tr("usually 50 %"));
    m_modulusFrom->setToolTip(tr("The modulus is the slope of stress over strain between these two strains, "
                                 "after the toe (ISO 527-1: 0.05 % and 0.25 %)."));
    m_modulusTo->setToolTip(m_modulusFrom->toolTip());
    m_offset->setToolTip(
        tr("Offset yield is where the record meets the modulus line shifted by this strain."));
    m_breakDrop->setToolTip(
        tr("A piece is broken where the force falls by more than this share of its peak at once."));
    m_toe->setToolTip(tr("The toe is the soft start while grips and piece settle; taken off, strains count "
                         "from where the steepest straight part meets zero."));
    addField(grid, 0, 0, tr("Test"), m_method);
    addField(grid, 0, 1, tr("Section"), m_shape, 3);
    addField(grid, 1, 0, tr("Gauge length"), m_gaugeLength);
    addField(grid, 1, 1, tr("Grip distance"), m_gripDistance);
    addField(grid, 1, 2, tr("Gauge's range"), m_capacity);
    addField(grid, 2, 0, tr("Modulus from"), m_modulusFrom);
    addField(grid, 2, 1, tr("Modulus to"), m_modulusTo);
    addField(grid, 2, 2, tr("Yield offset"), m_offset);
    addField(grid, 3, 0, tr("Break drop"), m_breakDrop);
    addField(grid, 3, 1, tr("Toe"), m_toe, 3);
    layout->addLayout(grid);
    layout->addWidget(softLabel(tr("Caution: breaking pieces throw splinters. Wear eye protection, put a "
                                   "shield around brittle pieces, hold no piece by "
                                   "hand. Your rig's manual and local rules go before anything said here; "
                                   "never release a part that people depend on "
                                   "on these results alone.")));
    return box;
}

void PlanView::connectFields()
{
    connect(m_method, &QComboBox::activated, this,
            [this] { m_presenter.setMethod(static_cast<Method>(m_method->currentData().toInt())); });
    connect(m_shape, &QComboBox::activated, this, [this] {
        m_presenter.setSectionShape(static_cast<SectionShape>(m_shape->currentData().toInt()));
    });
    const auto onFinished = [this](QLineEdit *edit, auto set) {
        connect(edit, &QLineEdit::editingFinished, this, [this, edit, set] {
            if (!edit->isModified())
                return;
            edit->setModified(false);
            if (!set(edit->text()))
                refresh(); // the sentence is on the notice bar; the field shows what holds
        });
    };
    onFinished(m_factorName,
               [this](const QString &text) { return m_presenter.setFactor(text, m_factorUnit->text()); });
    onFinished(m_factorUnit,
               [this](const QString &text) { return m_presenter.setFactor(m_factorName->text(), text); });
    onFinished(m_gaugeLength, [this](const QString &text) { return m_presenter.setGaugeLength(text); });
    onFinished(m_gripDistance, [this](const QString &text) { return m_presenter.setGripDistance(text); });
    onFinished(m_capacity, [this](const QString &text) { return m_presenter.setCapacity(text); });
    using Share = PlanPresenter::ShareRule;
    const auto onShare = [&](QLineEdit *edit, Share rule) {
        onFinished(edit, [this, rule](const QString &text) { return m_presenter.setShareRule(rule, text); });
    };
    onShare(m_modulusFrom, Share::ModulusFrom);
    onShare(m_modulusTo, Share::ModulusTo);
    onShare(m_offset, Share::Offset);
    onShare(m_breakDrop, Share::BreakDrop);
    connect(m_toe, &QComboBox::activated, this,
            [this](int index) { m_presenter.setToeCorrection(index == 0); });
    connect(m_pieces, &QSpinBox::valueChanged, this,
            [this](int count) { m_presenter.setPiecesPerRail(count); });
    connect(m_difference, &QDoubleSpinBox::valueChanged, this,
            [this](double percent) { m_presenter.setSmallestDifference(percent); });
    connect(m_scatter, &QDoubleSpinBox::valueChanged, this, [this](double percent) {
        m_presenter.setScatterPercent(percent);
        refresh();
    });
}

void PlanView::addLevels()
{
    const auto orientation =
        m_newOrientation->currentIndex() == 0 ? Orientation::Flat : Orientation::Standing;
    if (m_presenter.addLevels(m_newLevels->text(), orientation, m_newMaterial->text()))
        m_newLevels->clear();
    m_newLevels->setFocus();
}

void PlanView::refresh()
{
    const Study *study = m_session.study();
    setEnabled(study != nullptr);
    if (study == nullptr || m_session.lens() != Lens::Plan)
        return;
    const auto show = [](QLineEdit *edit, const QString &text) {
        if (!edit->hasFocus() || !edit->isModified())
            edit->setText(text);
    };
    const auto choose = [](QComboBox *box, int value) { box->setCurrentIndex(box->findData(value)); };
    choose(m_method, static_cast<int>(study->method));
    choose(m_shape, static_cast<int>(study->sectionShape));
    show(m_factorName, QString::fromStdString(study->factorName));
    show(m_factorUnit, QString::fromStdString(study->factorUnit));
    show(m_gaugeLength, m_presenter.gaugeLengthText());
    show(m_gripDistance, m_presenter.gripDistanceText());
    show(m_capacity, m_presenter.capacityText());
    m_toe->setCurrentIndex(study->rules.toeCorrection ? 0 : 1);
    show(m_modulusFrom, m_presenter.shareRuleText(PlanPresenter::ShareRule::ModulusFrom));
    show(m_modulusTo, m_presenter.shareRuleText(PlanPresenter::ShareRule::ModulusTo));
    show(m_offset, m_presenter.shareRuleText(PlanPresenter::ShareRule::Offset));
    show(m_breakDrop, m_presenter.shareRuleText(PlanPresenter::ShareRule::BreakDrop));
    const QSignalBlocker pieces(m_pieces);
    const QSignalBlocker difference(m_difference);
    const QSignalBlocker scatter(m_scatter);
    m_pieces->setValue(study->piecesPerCondition);
    m_difference->setValue(100.0 * study->smallestDifference);
    m_scatter->setValue(m_presenter.scatterPercent());
    m_scatterSource->setText(m_presenter.scatterSource());
    m_planText->setText(m_presenter.planText());
}

} // namespace inchpeg::app
