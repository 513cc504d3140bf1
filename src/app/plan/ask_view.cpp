// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/plan/ask_view.h"

#include "app/export/table_copy.h"
#include "app/parts/page_parts.h"
#include "app/parts/typing_helpers.h"
#include "app/theme/plain_texts.h"

#include <QCompleter>
#include <QHeaderView>
#include <QStyledItemDelegate>
#include <QTableView>
#include <QTimer>

namespace inchpeg::app
{

namespace
{

constexpr int kUnitWidth = 74;

/// Lets the orientation be chosen, not typed; other columns are typed.
class RailDelegate : public QStyledItemDelegate
{
public:
    RailDelegate(const RailTableModel &rails, QObject *parent) : QStyledItemDelegate(parent), m_rails(rails)
    {
    }
    QWidget *createEditor(QWidget *parent, const QStyleOptionViewItem &option,
                          const QModelIndex &index) const override
    {
        if (m_rails.kindOf(index.column()) != RailTableModel::Column::Orientation)
            return QStyledItemDelegate::createEditor(parent, option, index);
        auto *box = new QComboBox(parent);
        // What is chosen is taken at once; the editor has no other way to tell that it is done.
        QObject::connect(box, &QComboBox::activated, this, [this, box] {
            auto *self = const_cast<RailDelegate *>(this);
            emit self->commitData(box);
            emit self->closeEditor(box);
        });
        for (const Orientation orientation : {Orientation::Flat, Orientation::Standing})
            box->addItem(QString::fromUtf8(orientationName(orientation)));
        return box;
    }
    /// Wide enough for its words, however narrow the column is.
    void updateEditorGeometry(QWidget *editor, const QStyleOptionViewItem &option,
                              const QModelIndex &index) const override
    {
        QStyledItemDelegate::updateEditorGeometry(editor, option, index);
        if (qobject_cast<QComboBox *>(editor) != nullptr)
            editor->resize(std::max(editor->width(), editor->sizeHint().width()), editor->height());
    }
    void setEditorData(QWidget *editor, const QModelIndex &index) const override
    {
        if (auto *box = qobject_cast<QComboBox *>(editor))
            box->setCurrentText(index.data(Qt::EditRole).toString());
        else
            QStyledItemDelegate::setEditorData(editor, index);
    }
    void setModelData(QWidget *editor, QAbstractItemModel *model, const QModelIndex &index) const override
    {
        if (const auto *box = qobject_cast<QComboBox *>(editor))
            model->setData(index, box->currentText(), Qt::EditRole);
        else
            QStyledItemDelegate::setModelData(editor, model, index);
    }

private:
    const RailTableModel &m_rails;
};

void fillWithFactors(QComboBox *box)
{
    for (const FactorKind &kind : factorLibrary())
        box->addItem(QString::fromUtf8(kind.name));
    box->setEditable(true);
    box->setInsertPolicy(QComboBox::NoInsert);
    box->completer()->setCompletionMode(QCompleter::PopupCompletion);
}

QString exampleLevels(const std::string &factor)
{
    const FactorKind *kind = findFactorKind(factor);
    return kind != nullptr ? AskView::tr("for example %1").arg(QString::fromUtf8(kind->levels))
                           : AskView::tr("levels, for example a, b, c");
}

} // namespace

AskView::AskView(PlanPresenter &presenter, QWidget *parent)
    : QWidget(parent), m_presenter(presenter), m_rails(presenter)
{
    setObjectName(QStringLiteral("askView"));
    QVBoxLayout *layout = scrollingPage(this);
    layout->addWidget(createResponse());
    layout->addWidget(createFactors());
    layout->addWidget(createRails(), 1);
    layout->addWidget(createLocked());
}

QWidget *AskView::createResponse()
{
    auto *box = new QWidget;
    auto *layout = new QVBoxLayout(box);
    layout->setContentsMargins(0, 0, 0, 0);
    auto *row = new QHBoxLayout;
    m_method = comboBox("method", tr("Test"));
    for (const MethodFacts &facts : allMethods())
        m_method->addItem(QString::fromUtf8(facts.name), static_cast<int>(facts.method));
    m_property = comboBox("property", tr("Response"));
    for (QComboBox *choice : {m_method, m_property})
        choice->setSizeAdjustPolicy(QComboBox::AdjustToContents); // names of tests are read whole
    m_difference = lineEdit("smallestDifference", tr("Difference that matters"), tr("10 % or 4 MPa"));
    m_difference->setMaximumWidth(96);
    m_difference->setToolTip(
        tr("The smallest difference from the reference that would change the decision: a "
           "share, or a value with its unit"));
    row->addWidget(new QLabel(tr("By")));
    row->addWidget(m_method);
    row->addStretch(1);
    layout->addLayout(row);
    auto *measured = new QHBoxLayout;
    measured->addWidget(new QLabel(tr("we measure")));
    measured->addWidget(m_property);
    measured->addStretch(1);
    layout->addLayout(measured);
    auto *matters = new QHBoxLayout;
    matters->addWidget(new QLabel(tr("What would change the decision is a difference of")));
    matters->addWidget(m_difference);
    matters->addStretch(1);
    layout->addLayout(matters);
    m_furtherRows = new QVBoxLayout;
    m_furtherRows->setSpacing(4);
    layout->addLayout(m_furtherRows);
    connect(m_method, &QComboBox::activated, this, [this] {
        m_presenter.setMethod(static_cast<Method>(m_method->currentData().toInt()));
        refresh();
    });
    connect(m_property, &QComboBox::activated, this, [this] {
        m_presenter.setProperty(m_presenter.firstTest(), m_property->currentData().toString());
    });
    onTyped(
        m_difference, [this](const QString &text) { return m_presenter.setDifference(text); },
        [this] { refresh(); });
    return box;
}

void AskView::buildFurtherRows()
{
    const Study &study = m_presenter.state().study();
    if (m_shownTests == study.tests)
        return;
    m_shownTests = study.tests;
    clearLayout(m_furtherRows);
    for (const StudyTest &further : std::span(study.tests).subspan(1)) {
        const Method method = further.method;
        const QString name = QString::fromUtf8(methodName(method));
        auto *property = comboBox("", tr("Response of %1").arg(name));
        for (const PlannedProperty &one : factsOf(method).properties)
            property->addItem(QString::fromUtf8(one.label), QString::fromUtf8(one.name));
        property->setCurrentIndex(
            std::max(0, property->findData(QString::fromStdString(further.setup.property))));
        auto *pieces = spinBox("", tr("Pieces a rail for %1").arg(name), 1, kMostPiecesPerCondition);
        pieces->setValue(further.piecesPerCondition);
        pieces->setSuffix(tr(" a rail"));
        auto *remove = button("", tr("Take out"));
        remove->setProperty("slim", true);
        remove->setAccessibleName(tr("Take %1 out").arg(name));
        auto *row = new QHBoxLayout;
        row->addWidget(new QLabel(tr("and by %1").arg(name)));
        row->addWidget(property, 1);
        row->addWidget(new QLabel(tr("on")));
        row->addWidget(pieces);
        row->addWidget(remove);
        m_furtherRows->addLayout(row);
        connect(property, &QComboBox::activated, this, [this, method, property] {
            m_presenter.setProperty(method, property->currentData().toString());
        });
        connect(pieces, &QSpinBox::valueChanged, this,
                [this, method](int count) { m_presenter.setPiecesPerRail(method, count); });
        connect(remove, &QPushButton::clicked, this, [this, method] { m_presenter.removeTest(method); });
    }
    auto *add = comboBox("addTest", tr("Add another test of the same rails"));
    add->addItem(tr("Add another test of the same rails…"), -1);
    for (const MethodFacts &facts : allMethods()) {
        if (findTest(study, facts.method) == nullptr)
            add->addItem(QString::fromUtf8(facts.name), static_cast<int>(facts.method));
    }
    add->setMaximumWidth(300);
    m_furtherRows->addWidget(add);
    connect(add, &QComboBox::activated, this, [this, add] {
        const int chosen = add->currentData().toInt();
        add->setCurrentIndex(0);
        if (chosen >= 0)
            m_presenter.addTest(static_cast<Method>(chosen));
    });
}

QWidget *AskView::createFactors()
{
    auto *box = new QWidget;
    auto *layout = new QVBoxLayout(box);
    layout->setContentsMargins(0, 4, 0, 0);
    layout->addWidget(heading(tr("What is varied, and over which levels")));
    m_factorGrid = new QGridLayout;
    m_factorGrid->setHorizontalSpacing(6);
    m_factorGrid->setColumnStretch(0, 5);
    m_factorGrid->setColumnStretch(2, 6);
    m_factorGrid->setColumnStretch(3, 2);
    layout->addLayout(m_factorGrid);
    m_addFactor = comboBox("addFactor", tr("Add a factor"));
    fillWithFactors(m_addFactor);
    m_addFactor->setCurrentIndex(-1);
    m_addFactor->lineEdit()->setPlaceholderText(tr("another factor…"));
    auto *add = button("addFactorButton", tr("Add the factor"));
    m_design = comboBox("design", tr("How the levels are combined"));
    m_make = button("makeRails", tr("Make the rails"), true);
    auto *row = new QHBoxLayout;
    row->addWidget(m_addFactor, 3);
    row->addWidget(add);
    row->addSpacing(10);
    row->addWidget(m_design, 4);
    row->addWidget(m_make);
    layout->addLayout(row);
    m_aliases = softLabel({});
    m_aliases->setObjectName(QStringLiteral("aliases"));
    layout->addWidget(m_aliases);
    connect(add, &QPushButton::clicked, this, [this] {
        const QString name = m_addFactor->currentText();
        const FactorKind *kind = findFactorKind(name.simplified().toStdString());
        const QString level =
            kind != nullptr ? splitLevels(QString::fromUtf8(kind->levels)).value(0) : tr("a");
        if (m_presenter.addFactor(name, level)) {
            m_addFactor->setCurrentIndex(-1);
            m_addFactor->clearEditText();
        }
    });
    connect(m_make, &QPushButton::clicked, this, &AskView::makeRails);
    return box;
}

void AskView::buildFactorRows()
{
    clearLayout(m_factorGrid);
    m_factorRows.clear();
    const std::size_t count = m_presenter.state().study().factors.size();
    for (std::size_t i = 0; i < count; ++i) {
        const QString number = i == 0 ? QString() : QString::number(i + 1);
        FactorRow row;
        row.name = comboBox("", tr("What is varied %1").arg(number).trimmed());
        row.name->setObjectName(QStringLiteral("factor") + QString::number(i));
        fillWithFactors(row.name);
        constexpr int kArrow = 52; // and the frame
        const QFontMetrics metrics(row.name->font());
        row.name->setMinimumWidth(metrics.horizontalAdvance(QStringLiteral("setting temperature")) + kArrow);
        row.name->lineEdit()->setObjectName(QStringLiteral("factorName") + number);
        row.name->lineEdit()->setAccessibleName(row.name->accessibleName());
        row.name->lineEdit()->setPlaceholderText(tr("what is varied"));
        new ChooseAllOnClick(*row.name->lineEdit());
        row.unit = lineEdit("", tr("Unit of the levels %1").arg(number).trimmed(), tr("names"));
        row.unit->setObjectName(QStringLiteral("factorUnit") + number);
        row.unit->setFixedWidth(kUnitWidth);
        row.levels = lineEdit("", tr("Levels %1").arg(number).trimmed());
        row.levels->setObjectName(QStringLiteral("factorLevels") + number);
        row.changedPer = comboBox("", tr("How it is set %1").arg(number).trimmed());
        row.changedPer->setObjectName(QStringLiteral("changedPer") + number);
        row.changedPer->addItem(tr("per piece"), static_cast<int>(ChangedPer::Piece));
        row.changedPer->addItem(tr("per plate"), static_cast<int>(ChangedPer::Plate));
        row.changedPer->addItem(tr("after print"), static_cast<int>(ChangedPer::AfterPrint));
        row.changedPer->setToolTip(
            tr("Whether each piece of a plate can have its own, the whole plate shares "
               "one, or it is done to the printed piece"));
        row.remove = button("", tr("Remove"));
        row.remove->setProperty("slim", true);
        row.remove->setObjectName(QStringLiteral("removeFactor") + number);
        row.remove->setAccessibleName(tr("Remove the factor %1").arg(number).trimmed());
        row.remove->setVisible(count > 1);
        const auto line = static_cast<int>(i);
        m_factorGrid->addWidget(row.name, 2 * line, 0);
        m_factorGrid->addWidget(row.unit, 2 * line, 1);
        m_factorGrid->addWidget(row.levels, 2 * line, 2);
        m_factorGrid->addWidget(row.changedPer, 2 * line, 3);
        m_factorGrid->addWidget(row.remove, 2 * line, 4);
        row.meant = button("", {});
        row.meant->setObjectName(QStringLiteral("factorMeant") + number);
        row.meant->setProperty("slim", true);
        m_factorGrid->addWidget(row.meant, 2 * line + 1, 0, 1, 3, Qt::AlignLeft);
        connect(row.meant, &QPushButton::clicked, this, [this, i] {
            const std::string &name = m_presenter.state().study().factors[i].name;
            if (const FactorKind *kind = meantFactorKind(name))
                m_presenter.setFactor(i, QString::fromUtf8(kind->name), {});
            refresh();
        });
        const auto rename = [this, i, name = row.name, unit = row.unit] {
            return m_presenter.setFactor(i, name->currentText(), unit->text());
        };
        onTyped(
            row.name->lineEdit(), [rename](const QString &) { return rename(); }, [this] { refresh(); });
        connect(row.name->lineEdit(), &QLineEdit::returnPressed, this, [this] {
            if (!hasRails()) // once what was typed is taken, which may make the rows anew
                QTimer::singleShot(0, m_newLevels, qOverload<>(&QWidget::setFocus));
        });
        connect(row.name, &QComboBox::activated, this, [this, i, name = row.name] {
            m_presenter.setFactor(i, name->currentText(), {});
            refresh();
        });
        onTyped(
            row.unit, [rename](const QString &) { return rename(); }, [this] { refresh(); });
        connect(row.levels, &QLineEdit::returnPressed, m_make, &QPushButton::click);
        connect(row.changedPer, &QComboBox::activated, this, [this, i, box = row.changedPer] {
            m_presenter.setChangedPer(i, static_cast<ChangedPer>(box->currentData().toInt()));
        });
        connect(row.remove, &QPushButton::clicked, this, [this, i] { m_presenter.removeFactor(i); });
        m_factorRows.push_back(row);
    }
}

void AskView::refreshDesigns()
{
    const Study &study = m_presenter.state().study();
    const QVariant before = m_design->currentData();
    const auto factors = static_cast<int>(study.factors.size());
    m_design->clear();
    m_design->addItem(tr("each level with each"), QStringLiteral("full"));
    if (factors > 1)
        m_design->addItem(tr("one factor at a time"), QStringLiteral("one at a time"));
    for (const OfferedFraction &offered : offeredFractions(factors)) {
        QString text = tr("fraction: %1 rails").arg(offered.runs);
        for (const std::string &generator : offered.generators)
            text += QStringLiteral(", ") + QString::fromStdString(generator);
        QStringList words;
        for (const std::string &generator : offered.generators)
            words << QString::fromStdString(generator);
        m_design->addItem(text, words.join(QLatin1Char(' ')));
    }
    const int kept = m_design->findData(before);
    m_design->setCurrentIndex(std::max(0, kept));
    m_design->setToolTip(
        tr("Each with each shows how factors work together. One at a time needs fewer rails but "
           "cannot. A fraction takes two levels of each factor; what it cannot tell apart is "
           "written below."));
    m_aliases->setText(m_presenter.aliasSentences().join(QLatin1Char(' ')));
    m_aliases->setVisible(!m_aliases->text().isEmpty());
}

void AskView::makeRails()
{
    QStringList levels;
    for (const FactorRow &row : m_factorRows)
        levels << row.levels->text();
    const QString design = m_design->currentData().toString();
    const std::optional<DesignKind> kind = designFrom(design.toStdString());
    std::vector<std::string> generators;
    if (!kind) {
        for (const QString &generator : design.split(QLatin1Char(' ')))
            generators.push_back(generator.toStdString());
    }
    if (m_presenter.makeRails(kind.value_or(DesignKind::Fraction), generators, levels)) {
        for (const FactorRow &row : m_factorRows)
            row.levels->setModified(false);
        refresh();
    }
}

QWidget *AskView::createRails()
{
    auto *box = new QWidget;
    auto *layout = new QVBoxLayout(box);
    layout->setContentsMargins(0, 4, 0, 0);
    auto *reference = button("makeReference", tr("Make it the reference"));
    auto *remove = button("removeRail", tr("Remove the rail"));
    auto *top = new QHBoxLayout;
    top->addWidget(heading(tr("Rails, the reference on top")), 1);
    top->addWidget(reference);
    top->addWidget(remove);
    layout->addLayout(top);

    m_railTable = new QTableView;
    m_railTable->setObjectName(QStringLiteral("railTable"));
    m_railTable->setAccessibleName(tr("Rails"));
    m_railTable->setModel(&m_rails);
    m_railTable->setItemDelegate(new RailDelegate(m_rails, m_railTable));
    m_railTable->setSelectionBehavior(QAbstractItemView::SelectRows);
    m_railTable->setSelectionMode(QAbstractItemView::SingleSelection);
    m_railTable->verticalHeader()->hide();
    m_railTable->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    // One mode for all sections: with modes of their own, a change of their number upsets the header
    // (Qt 6.4).
    m_railTable->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    m_railTable->horizontalHeader()->setStretchLastSection(true);
    m_railTable->setMinimumHeight(130);
    m_railTable->setTabKeyNavigation(false); // Tab goes on to the next field
    new EditStarter(*m_railTable, [this](const QModelIndex &index) {
        return m_rails.kindOf(index.column()) == RailTableModel::Column::Orientation;
    });
    offerCopy(*m_railTable);
    layout->addWidget(m_railTable, 1);

    m_newLevels = lineEdit("newLevels", tr("Levels to add"), tr("levels, for example 230, 245, 260"));
    m_newOrientation = comboBox("newOrientation", tr("Printed flat or standing"));
    for (const Orientation orientation : {Orientation::Flat, Orientation::Standing})
        m_newOrientation->addItem(QString::fromUtf8(orientationName(orientation)),
                                  static_cast<int>(orientation));
    m_newMaterial = lineEdit("newMaterial", tr("Material and lot of the new rails"), tr("material, lot"));
    auto *add = button("addLevels", tr("Add rails"));
    connect(add, &QPushButton::clicked, this, &AskView::addLevels);
    connect(m_newLevels, &QLineEdit::returnPressed, this, &AskView::addLevels);
    auto *adding = new QHBoxLayout;
    adding->addWidget(m_newLevels, 3);
    adding->addWidget(m_newOrientation, 1);
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

QWidget *AskView::createLocked()
{
    auto *box = new QWidget;
    auto *layout = new QVBoxLayout(box);
    layout->setContentsMargins(0, 4, 0, 0);
    layout->addWidget(heading(tr("What is held the same on all rails")));
    m_lockedRows = new QVBoxLayout;
    m_lockedRows->setSpacing(3);
    layout->addLayout(m_lockedRows);
    m_lockName = comboBox("lockName", tr("Setting that is held"));
    fillWithFactors(m_lockName);
    m_lockName->setCurrentIndex(-1);
    m_lockName->lineEdit()->setPlaceholderText(tr("setting…"));
    m_lockValue = lineEdit("lockValue", tr("Its value"), tr("value, such as 4 or 70 %"));
    auto *lock = button("lockSetting", tr("Hold it"));
    auto *row = new QHBoxLayout;
    row->addWidget(m_lockName, 3);
    row->addWidget(m_lockValue, 3);
    row->addWidget(lock);
    layout->addLayout(row);
    const auto add = [this] {
        if (m_lockValue->text().trimmed().isEmpty() && m_lockName->currentText().isEmpty())
            return;
        if (m_presenter.lock(m_lockName->currentText(), m_lockValue->text())) {
            m_lockName->setCurrentIndex(-1);
            m_lockName->clearEditText();
            m_lockValue->clear();
        }
    };
    connect(lock, &QPushButton::clicked, this, add);
    connect(m_lockValue, &QLineEdit::returnPressed, this, add);
    return box;
}

void AskView::buildLockedRows()
{
    if (m_shownLocked == m_presenter.state().study().plan.locked)
        return;
    m_shownLocked = m_presenter.state().study().plan.locked;
    clearLayout(m_lockedRows);
    // Chips in rows of two, each with its own way out.
    QHBoxLayout *row = nullptr;
    int inRow = 0;
    for (const LockedSetting &setting : m_presenter.state().study().plan.locked) {
        if (row == nullptr || inRow == 2) {
            row = new QHBoxLayout;
            m_lockedRows->addLayout(row);
            inRow = 0;
        }
        const QString name = QString::fromStdString(setting.name);
        auto *value = lineEdit("", name);
        value->setObjectName(QStringLiteral("locked-") + name);
        value->setText(QString::fromStdString(setting.value));
        value->setToolTip(tr("Clear it to let the setting go"));
        auto *label = new QLabel(withoutKeyMarks(name));
        label->setBuddy(value);
        row->addWidget(label);
        row->addWidget(value, 1);
        ++inRow;
        onTyped(
            value, [this, name](const QString &text) { return m_presenter.lock(name, text); },
            [this] { refresh(); });
    }
    if (row != nullptr && inRow == 1)
        row->addStretch(1);
}

void AskView::addLevels()
{
    const auto orientation = static_cast<Orientation>(m_newOrientation->currentData().toInt());
    if (m_presenter.addLevels(m_newLevels->text(), orientation, m_newMaterial->text()))
        m_newLevels->clear();
    m_newLevels->setFocus();
}

bool AskView::hasRails() const
{
    return !m_presenter.state().study().conditions.empty();
}

void AskView::goOnAfterQuestion()
{
    if (hasRails() || m_factorRows.empty() || !isVisible())
        return;
    QLineEdit *name = m_factorRows.front().name->lineEdit();
    name->setFocus();
    name->selectAll();
}

void AskView::refresh()
{
    const Study &study = m_presenter.state().study();
    const Method method = methodOf(study);
    choose(m_method, static_cast<int>(method));
    if (m_orientationOf != method) { // a test's own way to print is offered first
        m_orientationOf = method;
        choose(m_newOrientation, static_cast<int>(usualOrientation(method)));
    }
    m_property->clear();
    for (const PlannedProperty &property : factsOf(method).properties)
        m_property->addItem(QString::fromUtf8(property.label), QString::fromUtf8(property.name));
    m_property->setCurrentIndex(
        m_property->findData(QString::fromUtf8(m_presenter.state().tests().front().property.name.data())));
    showText(m_difference, m_presenter.differenceText());
    buildFurtherRows();
    if (m_factorRows.size() != study.factors.size())
        buildFactorRows();
    for (std::size_t i = 0; i < m_factorRows.size(); ++i) {
        const FactorRow &row = m_factorRows[i];
        const Factor &factor = study.factors[i];
        showText(row.name->lineEdit(), QString::fromStdString(factor.name));
        const FactorKind *meant = meantFactorKind(factor.name);
        row.meant->setVisible(meant != nullptr);
        if (meant != nullptr)
            row.meant->setText(tr("Is %1 meant? Take it").arg(QString::fromUtf8(meant->name)));
        showText(row.unit, QString::fromStdString(factor.unit));
        if (!row.levels->isModified())
            showText(row.levels, m_presenter.levelsText(i));
        row.levels->setPlaceholderText(exampleLevels(factor.name));
        choose(row.changedPer, static_cast<int>(factor.changedPer));
    }
    m_addFactor->setEnabled(study.factors.size() < kMostFactors);
    m_newLevels->setPlaceholderText(study.factors.size() > 1
                                        ? tr("one rail: its levels, in order, with ; between")
                                        : tr("levels, for example 230, 245, 260"));
    refreshDesigns();
    buildLockedRows();
}

} // namespace inchpeg::app
