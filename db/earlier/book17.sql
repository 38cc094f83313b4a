PRAGMA foreign_keys=OFF;
BEGIN TRANSACTION;
CREATE TABLE IF NOT EXISTS "__drizzle_migrations" (
				id SERIAL PRIMARY KEY,
				hash text NOT NULL,
				created_at numeric
			);
INSERT INTO __drizzle_migrations VALUES(NULL,'bdfbd94f103715fc8bb539d4bb1b9bad18e4f3dc40ea628f91a6cb9aa32689fb',1795444945715);
INSERT INTO __drizzle_migrations VALUES(NULL,'bd73ebc44ea21ff1508df768858d9468c2f56435a653965307a1335474468a93',1795455683468);
INSERT INTO __drizzle_migrations VALUES(NULL,'37e4965c873852a121902f3d3f003f88c19eadc2a1d93950a838504dd4c3ac3e',1795460927510);
INSERT INTO __drizzle_migrations VALUES(NULL,'3ec7c407f68ad4024a4b81b739b4e308667121e296e02cdea857dc34e18c69a0',1795465657002);
INSERT INTO __drizzle_migrations VALUES(NULL,'5e9936d32a8357e5f77230de54607e41f38a8b3ba6ba28a4895ddd7370d50653',1795465659548);
INSERT INTO __drizzle_migrations VALUES(NULL,'7b47dda3a98797336eaaa42cc9da14936b54ed0010187cbc4d0e414bdaca585e',1795469604047);
INSERT INTO __drizzle_migrations VALUES(NULL,'af3ba4f9bb55b56cc3c51921fdc0ed60b466f519a6e66e567671ca8995f65abd',1795472300679);
INSERT INTO __drizzle_migrations VALUES(NULL,'2ed4efc45b9d3c9bbadb8820bfbeb53c1846f51718437e147f33526e39df4146',1795478506905);
INSERT INTO __drizzle_migrations VALUES(NULL,'c752f4619916de89aa8504dcea46787a8f93f5016b1d7ce32613cead15f2ef37',1795561438365);
INSERT INTO __drizzle_migrations VALUES(NULL,'ae0785d0f34b055bff4bb58b68fbb14251faae2084bc4c31794dc2918e17dca1',1795582113761);
INSERT INTO __drizzle_migrations VALUES(NULL,'252d5312ede615f4f87cd996892d9232bc2ea81540c3149acd7b60861b8bc709',1795650430409);
INSERT INTO __drizzle_migrations VALUES(NULL,'6d354bfceaa6b3e7599bb737cc95c19d9a28daa68276997429c69ae847068544',1795656584270);
INSERT INTO __drizzle_migrations VALUES(NULL,'46a08b91c42cb620054b7c603ece740fc041240ae03739bf3db566b47586f5bf',1795668895365);
INSERT INTO __drizzle_migrations VALUES(NULL,'8690e206a269c3430ab83a56d810f1b4ae84673bc0506b2e239ae6409db3d15c',1795678564794);
INSERT INTO __drizzle_migrations VALUES(NULL,'3a76295228b9acc500dff72f0462255d3f8a31bfbf61837f79c6b71780f7e0c2',1795691964225);
INSERT INTO __drizzle_migrations VALUES(NULL,'8920f4b2e95f29193a8d7bec1ef31362b65f2be483176ab42fdebc0b3b62e859',1796148212042);
INSERT INTO __drizzle_migrations VALUES(NULL,'b4f1b18e31ba52389bf9f5ba14e960ab85b2110e506af3c7199eeebbc6696d05',1796153064176);
CREATE TABLE `arrangements` (
	`id` text PRIMARY KEY NOT NULL,
	`tune_id` text NOT NULL,
	`chart_id` text NOT NULL,
	`name` text NOT NULL,
	`colour` integer NOT NULL,
	`bass` text NOT NULL,
	`style` text NOT NULL,
	`line` integer NOT NULL,
	`tempo` integer NOT NULL, `version` integer, `kept_at` integer DEFAULT 0 NOT NULL, `conditions` text DEFAULT '[]' NOT NULL, `leading` text DEFAULT '{"own":null,"loop":false,"window":null,"drone":null}' NOT NULL, `chord_melody` text DEFAULT '{"density":"chord","texture":"full","fills":false,"window":null,"topString":1,"line":0,"fixed":{},"kept":[]}' NOT NULL, `rhythm` text DEFAULT '{"figure":null,"sections":{},"bars":{},"restart":"section","density":1,"feel":"figure","behindMs":0,"seed":0,"phrase":4,"listens":false,"bass":"none","band":"new","time":"none","levels":{"guitar":1,"bass":0.8,"time":0.5},"muted":[],"byHand":{}}' NOT NULL,
	FOREIGN KEY (`tune_id`) REFERENCES `tunes`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`chart_id`) REFERENCES `charts`(`id`) ON UPDATE no action ON DELETE cascade
);
INSERT INTO arrangements VALUES('4a818e7d-bdda-49d9-8182-e796afdd9157','17d85edd-8941-4a01-ad58-832ff8361c13','2624eb62-cb41-45b0-bfaa-ce25aa0b6628','New line',2,'chord','contrary',0,88,NULL,0,'[{"kind":"top","midi":67,"from":"1:1","to":"3:1"}]','{"own":null,"loop":false,"window":null,"drone":null,"contour":null,"texture":null}','{"density":"chord","texture":"full","fills":false,"window":null,"topString":1,"line":0,"fixed":{},"kept":[]}','{"figure":null,"sections":{},"bars":{},"restart":"section","density":1,"feel":"figure","behindMs":0,"seed":0,"phrase":4,"listens":false,"bass":"none","band":"new","time":"none","levels":{"guitar":1,"bass":0.8,"time":0.5},"muted":[],"byHand":{}}');
INSERT INTO arrangements VALUES('dcdd24b3-37e1-4a77-9ebc-1f43a093c2c7','17d85edd-8941-4a01-ad58-832ff8361c13','2624eb62-cb41-45b0-bfaa-ce25aa0b6628','First',2,'chord','smooth',-1,88,0,7,'[{"kind":"top","midi":67,"from":"1:1","to":"3:1"}]','{"own":null,"loop":false,"window":null,"drone":null,"contour":null,"texture":null}','{"density":"chord","texture":"full","fills":false,"window":null,"topString":1,"line":0,"fixed":{},"kept":[]}','{"figure":null,"sections":{},"bars":{},"restart":"section","density":1,"feel":"figure","behindMs":0,"seed":0,"phrase":4,"listens":false,"bass":"none","band":"new","time":"none","levels":{"guitar":1,"bass":0.8,"time":0.5},"muted":[],"byHand":{}}');
INSERT INTO arrangements VALUES('5f0360a3-9824-48e4-922c-34cc3b6f7075','17d85edd-8941-4a01-ad58-832ff8361c13','6ae7602f-803f-457e-9626-6f7f344d1f5e','New line',2,'chord','contrary',0,88,NULL,0,'[]','{"own":null,"loop":false,"window":null,"drone":null,"contour":null,"texture":null}','{"density":"chord","texture":"full","fills":false,"window":null,"topString":1,"line":0,"fixed":{},"kept":[]}','{"figure":null,"sections":{},"bars":{},"restart":"section","density":1,"feel":"figure","behindMs":0,"seed":0,"phrase":4,"listens":false,"bass":"none","band":"new","time":"none","levels":{"guitar":1,"bass":0.8,"time":0.5},"muted":[],"byHand":{}}');
INSERT INTO arrangements VALUES('db42d22b-4284-4583-8df7-ba7f992e3c13','17d85edd-8941-4a01-ad58-832ff8361c13','6ae7602f-803f-457e-9626-6f7f344d1f5e','First',2,'chord','smooth',-1,88,0,7,'[]','{"own":null,"loop":false,"window":null,"drone":null,"contour":null,"texture":null}','{"density":"chord","texture":"full","fills":false,"window":null,"topString":1,"line":0,"fixed":{},"kept":[]}','{"figure":null,"sections":{},"bars":{},"restart":"section","density":1,"feel":"figure","behindMs":0,"seed":0,"phrase":4,"listens":false,"bass":"none","band":"new","time":"none","levels":{"guitar":1,"bass":0.8,"time":0.5},"muted":[],"byHand":{}}');
INSERT INTO arrangements VALUES('02986d14-d92c-4873-9638-776699da51d0','17d85edd-8941-4a01-ad58-832ff8361c13','6ae7602f-803f-457e-9626-6f7f344d1f5e','Second',2,'chord','contrary',0,88,1,9,'[]','{"own":null,"loop":false,"window":null,"drone":null,"contour":null,"texture":null}','{"density":"chord","texture":"full","fills":false,"window":null,"topString":1,"line":0,"fixed":{},"kept":[]}','{"figure":null,"sections":{},"bars":{},"restart":"section","density":1,"feel":"figure","behindMs":0,"seed":0,"phrase":4,"listens":false,"bass":"none","band":"new","time":"none","levels":{"guitar":1,"bass":0.8,"time":0.5},"muted":[],"byHand":{}}');
INSERT INTO arrangements VALUES('ebb275a8-e97e-4f64-bbd1-29e38d1d4a12','cd206d32-b497-4a98-96b7-fdd28253a976','3268c65d-c3f8-40f6-b650-57d69ab3a957','New line',0,'chord','smooth',0,96,NULL,0,'[]','{"own":null,"loop":false,"window":null,"drone":null,"contour":null,"texture":null}','{"density":"chord","texture":"full","fills":false,"window":null,"topString":1,"line":0,"fixed":{},"kept":[]}','{"figure":null,"sections":{},"bars":{},"restart":"section","density":1,"feel":"figure","behindMs":0,"seed":0,"phrase":4,"listens":false,"bass":"none","band":"new","time":"none","levels":{"guitar":1,"bass":0.8,"time":0.5},"muted":[],"byHand":{}}');
INSERT INTO arrangements VALUES('3f75a1e7-dfd5-4569-a380-2a052b943705','d361f6ce-6fb6-487f-b355-998a18c1e2e3','1ccb118f-a944-4ea4-8d98-507d6651324d','New line',0,'chord','smooth',0,96,NULL,0,'[]','{"own":null,"loop":false,"window":null,"drone":null,"contour":null,"texture":null}','{"density":"chord","texture":"full","fills":false,"window":null,"topString":1,"line":0,"fixed":{},"kept":[]}','{"figure":null,"sections":{},"bars":{},"restart":"section","density":1,"feel":"figure","behindMs":0,"seed":0,"phrase":4,"listens":false,"bass":"none","band":"new","time":"none","levels":{"guitar":1,"bass":0.8,"time":0.5},"muted":[],"byHand":{}}');
CREATE TABLE `charts` (
	`id` text PRIMARY KEY NOT NULL,
	`tune_id` text NOT NULL,
	`name` text NOT NULL,
	`text` text NOT NULL, `place` integer DEFAULT 0 NOT NULL, `shown` integer DEFAULT true NOT NULL, `melody` text DEFAULT '[]' NOT NULL, `phrases` text DEFAULT '{}' NOT NULL, `lyrics` text DEFAULT '[]' NOT NULL,
	FOREIGN KEY (`tune_id`) REFERENCES `tunes`(`id`) ON UPDATE no action ON DELETE cascade
);
INSERT INTO charts VALUES('2624eb62-cb41-45b0-bfaa-ce25aa0b6628','17d85edd-8941-4a01-ad58-832ff8361c13','Plain',replace('key: G\n[A]\n| Gmaj7 | Em7 | Am7 | D7 |','\n',char(10)),0,0,'[{"bar":1,"beat":1,"beats":2,"note":"B4"},{"bar":1,"beat":3,"beats":1.5,"note":"D5"}]','{"2:1":true}','[{"bar":1,"beat":1,"text":"Rain''s “song”"}]');
INSERT INTO charts VALUES('6ae7602f-803f-457e-9626-6f7f344d1f5e','17d85edd-8941-4a01-ad58-832ff8361c13','Later',replace('key: G\n| G | C | D | G |','\n',char(10)),1,1,'[{"bar":1,"beat":1,"beats":2,"note":"B4"},{"bar":1,"beat":3,"beats":1.5,"note":"D5"}]','{"2:1":true}','[{"bar":1,"beat":1,"text":"Rain''s “song”"}]');
INSERT INTO charts VALUES('3268c65d-c3f8-40f6-b650-57d69ab3a957','cd206d32-b497-4a98-96b7-fdd28253a976','Plain','| C |',0,1,'[]','{}','[]');
INSERT INTO charts VALUES('1ccb118f-a944-4ea4-8d98-507d6651324d','d361f6ce-6fb6-487f-b355-998a18c1e2e3','Plain','',0,1,'[]','{}','[]');
CREATE TABLE `choices` (
	`arrangement_id` text NOT NULL,
	`slot` text NOT NULL,
	`rule` text NOT NULL, `by` text, `chords` text DEFAULT '[]' NOT NULL, `span` integer DEFAULT 1 NOT NULL, `made_at` integer DEFAULT 0 NOT NULL, `why` text,
	PRIMARY KEY(`arrangement_id`, `slot`),
	FOREIGN KEY (`arrangement_id`) REFERENCES `arrangements`(`id`) ON UPDATE no action ON DELETE cascade
);
INSERT INTO choices VALUES('4a818e7d-bdda-49d9-8182-e796afdd9157','4:1','b2',NULL,'[{"symbol":"Ab7","beats":4}]',1,5,'has the third and seventh of D7');
INSERT INTO choices VALUES('4a818e7d-bdda-49d9-8182-e796afdd9157','2:1','b4','tune','[{"symbol":"E7","beats":4}]',1,5,NULL);
INSERT INTO choices VALUES('dcdd24b3-37e1-4a77-9ebc-1f43a093c2c7','2:1','b4','tune','[{"symbol":"E7","beats":4}]',1,5,NULL);
INSERT INTO choices VALUES('dcdd24b3-37e1-4a77-9ebc-1f43a093c2c7','4:1','b2',NULL,'[{"symbol":"Ab7","beats":4}]',1,5,'has the third and seventh of D7');
CREATE TABLE `tunes` (
	`id` text PRIMARY KEY NOT NULL,
	`title` text NOT NULL,
	`created_at` integer NOT NULL,
	`touched_at` integer NOT NULL,
	`deleted_at` integer,
	`head` text NOT NULL
, `summary` text, `tags` text DEFAULT '[]' NOT NULL, `place` text);
INSERT INTO tunes VALUES('17d85edd-8941-4a01-ad58-832ff8361c13','Tin Roof Lullaby',1700000000000,1700000100000,NULL,'dd225a97-4451-4248-b26a-2b5ef094f908','{"key":"G","meter":"4/4","bars":4,"far":"with melody","sought":{"inKey":" 0j 5j 7j 0j ","steps":"j5j2j5j","says":["authentic cadence"],"changes":"xm2HkVfWLGi9UaSc"}}','[]',NULL);
INSERT INTO tunes VALUES('cd206d32-b497-4a98-96b7-fdd28253a976','Gone',1700000000001,1700000000001,1700000000002,'9a676537-8f07-46e1-8d6d-4307e71259ea','{"key":"C","meter":"4/4","bars":1,"far":"typed","sought":{"inKey":" 0j ","steps":"j","says":[],"changes":""}}','[]',NULL);
INSERT INTO tunes VALUES('d361f6ce-6fb6-487f-b355-998a18c1e2e3','Odd',1700000000003,1700000000003,NULL,'f8ff8d7f-861c-4333-a041-e5194386e56c','{"key":null,"meter":"4/4","bars":0,"far":"empty","sought":null}','[]',NULL);
CREATE TABLE `voicings` (
	`arrangement_id` text NOT NULL,
	`slot` text NOT NULL,
	`frets` text NOT NULL,
	`fixed` integer NOT NULL, `instrument` text, `called` text,
	PRIMARY KEY(`arrangement_id`, `slot`),
	FOREIGN KEY (`arrangement_id`) REFERENCES `arrangements`(`id`) ON UPDATE no action ON DELETE cascade
);
INSERT INTO voicings VALUES('4a818e7d-bdda-49d9-8182-e796afdd9157','1:1','[3,null,4,4,3,null]',1,'E2 A2 D3 G3 B3 E4 capo 0',NULL);
INSERT INTO voicings VALUES('dcdd24b3-37e1-4a77-9ebc-1f43a093c2c7','1:1','[3,null,4,4,3,null]',1,'E2 A2 D3 G3 B3 E4 capo 0',NULL);
INSERT INTO voicings VALUES('4a818e7d-bdda-49d9-8182-e796afdd9157','3:1','[5,null,5,5,5,null]',0,'E2 A2 D3 G3 B3 E4 capo 0',NULL);
CREATE TABLE `likings` (
	`rule` text PRIMARY KEY NOT NULL,
	`times` integer NOT NULL,
	`last_at` integer NOT NULL
);
CREATE TABLE `settings` (
	`name` text PRIMARY KEY NOT NULL,
	`value` text NOT NULL
);
CREATE TABLE `grips` (
	`id` text PRIMARY KEY NOT NULL,
	`frets` text NOT NULL,
	`symbol` text NOT NULL,
	`tags` text NOT NULL,
	`note` text NOT NULL,
	`created_at` integer NOT NULL,
	`deleted_at` integer
, `instrument` text);
CREATE TABLE `writes` (
	`id` text PRIMARY KEY NOT NULL,
	`tune_id` text NOT NULL,
	`made` text NOT NULL,
	`at` integer NOT NULL,
	FOREIGN KEY (`tune_id`) REFERENCES `tunes`(`id`) ON UPDATE no action ON DELETE cascade
);
CREATE TABLE `goals` (
	`tune_id` text NOT NULL,
	`kind` text NOT NULL,
	`item` text NOT NULL,
	`tempo` real,
	`wanted` integer NOT NULL,
	`made_at` integer NOT NULL,
	PRIMARY KEY(`tune_id`, `kind`, `item`),
	FOREIGN KEY (`tune_id`) REFERENCES `tunes`(`id`) ON UPDATE no action ON DELETE cascade
);
CREATE TABLE `passes` (
	`id` text PRIMARY KEY NOT NULL,
	`tune_id` text,
	`title` text NOT NULL,
	`kind` text NOT NULL,
	`item` text NOT NULL,
	`from_bar` integer,
	`to_bar` integer,
	`key` text,
	`tempo` real,
	`goal` real,
	`grade` text NOT NULL,
	`seconds` real NOT NULL,
	`at` integer NOT NULL,
	`day` integer NOT NULL,
	`zone` text NOT NULL,
	`note` text DEFAULT '' NOT NULL,
	`hurt` integer DEFAULT false NOT NULL,
	`deleted_at` integer,
	FOREIGN KEY (`tune_id`) REFERENCES `tunes`(`id`) ON UPDATE no action ON DELETE set null
);
CREATE TABLE `practised` (
	`tune_id` text NOT NULL,
	`kind` text NOT NULL,
	`item` text NOT NULL,
	`due` integer NOT NULL,
	`record` text NOT NULL,
	PRIMARY KEY(`tune_id`, `kind`, `item`)
);
CREATE TABLE `layouts` (
	`id` text PRIMARY KEY NOT NULL,
	`tune_id` text NOT NULL,
	`name` text NOT NULL,
	`layout` text NOT NULL,
	`created_at` integer NOT NULL,
	`deleted_at` integer,
	FOREIGN KEY (`tune_id`) REFERENCES `tunes`(`id`) ON UPDATE no action ON DELETE cascade
);
CREATE TABLE `set_tunes` (
	`id` text PRIMARY KEY NOT NULL,
	`set_id` text NOT NULL,
	`tune_id` text,
	`title` text NOT NULL,
	`place` integer NOT NULL,
	`key` text,
	`tempo` integer,
	`version` text,
	`note` text DEFAULT '' NOT NULL,
	`deleted_at` integer,
	FOREIGN KEY (`set_id`) REFERENCES `sets`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`tune_id`) REFERENCES `tunes`(`id`) ON UPDATE no action ON DELETE set null
);
CREATE TABLE `sets` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`note` text DEFAULT '' NOT NULL,
	`created_at` integer NOT NULL,
	`touched_at` integer NOT NULL,
	`deleted_at` integer
);
CREATE TABLE IF NOT EXISTS "revisions" (
	`id` text PRIMARY KEY NOT NULL,
	`tune_id` text NOT NULL,
	`parent_id` text,
	`sequence` integer NOT NULL,
	`label` text NOT NULL,
	`snapshot` text,
	`packed` blob,
	`basis_id` text,
	`depth` integer DEFAULT 0 NOT NULL,
	`version` integer DEFAULT 0 NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`tune_id`) REFERENCES `tunes`(`id`) ON UPDATE no action ON DELETE cascade
);
INSERT INTO revisions VALUES('fb48e630-35e8-482d-b569-170fb61afc7f','17d85edd-8941-4a01-ad58-832ff8361c13',NULL,0,'new tune',NULL,X'75523d6fdc300cfd2b066721b8006dd36a0bd0221d1ab468bb2519648b3eaba14543a273317cfeef05655fee962c029f49e97dd033481042b0f037c4ea37735bfd18895c3d8101c157010bcf38d9eaee313edc3e3dc66375d7bb7f37d5b1fad6eb795bceaf37d5110c344c3c26b03b03b5cb192c341d270f06b24c8525f7ccd281010a11cba0603f30d82f9f8c0e870633d87931d08657f46bb94f61c817e5cfb882c6119d665e30e5c031837d785221d107396342e743dc839d810f116c1c890c10f300b67594d1c02144cf8753cb27567d2b68384af1b5428d654c5b7731abc77b24f69312788c39c87461feed02b42311a837a2fc0eb3f0f04752117b7d11d3451ccf3888da5a0ca46e92ae57d636ecdf3419c8d86ceef542edd25625cce2922e759b0073d67b6da0452495b93e66a0c62e447f9f8b848caa606760e892cb08f683eacb82f1ec655b7bd4f41445af080f9a42e8f1dc227c41cd6086fd18c4a542bfdede5d7d3e4defae3e2e06fa51945917594fdfcb9bf3a2dfb7ccb5b16ada6cd2944273fa15bad5f02f7241ed3a291e583a4c6564f90f',NULL,0,2,1700000000000);
INSERT INTO revisions VALUES('b543b7a9-b852-4443-9639-84e43d46e75d','17d85edd-8941-4a01-ad58-832ff8361c13','fb48e630-35e8-482d-b569-170fb61afc7f',1,'colour of the whole tune, Colour',NULL,X'ab564acecfc92f2d52b28a36d0318aad0500','fb48e630-35e8-482d-b569-170fb61afc7f',1,2,1700000001000);
INSERT INTO revisions VALUES('8848e8e4-c1b9-4058-88cd-297802568580','17d85edd-8941-4a01-ad58-832ff8361c13','b543b7a9-b852-4443-9639-84e43d46e75d',2,'Ab7 in bar 4, Colour',NULL,X'1dc8410ac2301005d0ab0c7f9d4da552985dc15b48174933328536914c544ac8dd45778fd7b06ade563170c3c803f8de7e55a2fd69e711f20ec61c263804f1d5c0635f1cece913787028af5dc0081738f80abe3a7cf40443bd5155a1aa5b89e4532493b7a4aa941f749bd097debf','b543b7a9-b852-4443-9639-84e43d46e75d',2,2,1700000002000);
INSERT INTO revisions VALUES('35426870-b4f9-4df8-900f-2d226d476371','17d85edd-8941-4a01-ad58-832ff8361c13','8848e8e4-c1b9-4058-88cd-297802568580',3,'way 1, Colour',NULL,X'1dc8b10a83301486d177f9e6bb284ae1df7d8ae290d8808255f1c64142debdd4ed700ad3bc2f53725468d5a077f9d7f9f1877e7fe3be228617464c213beaea68f81136d418e7b52644ec304246bd116f44beb6441d6bfd01','8848e8e4-c1b9-4058-88cd-297802568580',3,2,1700000003000);
INSERT INTO revisions VALUES('6e1df10a-0788-48a9-903c-e528133d77c4','17d85edd-8941-4a01-ad58-832ff8361c13','35426870-b4f9-4df8-900f-2d226d476371',4,'condition for the lines, Lines',NULL,X'05c1c10980301045c15ede390783a0f05b111131088b9815dd5b48efce340eafc5c2bc7ea831a0a571592d88f087c46dc5d03427ced76f445626118e1895e96b620bc44eef3f','35426870-b4f9-4df8-900f-2d226d476371',4,2,1700000004000);
INSERT INTO revisions VALUES('db8c9a92-550f-49f5-9030-8637e33dbeae','17d85edd-8941-4a01-ad58-832ff8361c13','6e1df10a-0788-48a9-903c-e528133d77c4',5,'grip in bar 1, Lines',NULL,X'ab56cac9cc4b55b28a36d0d1358cd5514acbac484d51b2aa5632b43254b28a8e36d6c92bcdc9d131d131d1813063636b7594d28b320b8a8953e59f8750a7e46aa4e068a4e062ace06eace064ace06aa2909c5890af60a0145b5b0b00','6e1df10a-0788-48a9-903c-e528133d77c4',5,2,1700000005000);
INSERT INTO revisions VALUES('794ba447-382d-4b90-864a-3a054804cfe8','17d85edd-8941-4a01-ad58-832ff8361c13','db8c9a92-550f-49f5-9030-8637e33dbeae',6,'kept as First, Colour',NULL,X'ed54cb6edb3010fc1562cedbc0cfb8e5cd45dcf4d0a045db9be3032551161b8a14482a8ee0e8df0b528a9d1ed2a0408f81008ac43e66b83bcb23820a5a82e3a732ecbbb525fbd26a2db20e8420ebc6827fb88cdb87008e3bd971767d6bb6ebddad7964d7b5f8b5628f6c53c7759dd6ab157b0421b7dab60e7c46c884f7e0c82beb0a107ce812a0afad0d15085a1909fe6e4ad145e5d2831f31e3d3f84b411e7c7b84efeacc6a706c56206452040fbee87704df08033e25b83665ce16208800be24641d38426b247ac2e2e5a4ebecd5acb373d64315d356c2b35049162ae50a264cc1bcbc972654cc96ec6a85be2794ea411611741ab1b77332add6b4a0050ddb5d4fd83bd5f8bff910e6c9b21c2ccbf4fd11fdd59ce2b199b1f58c5dcdd9f59c7d9cb3cd82e5a2b16c8231cdcb0e3d21175a27c2716f4da182b266a8d59d32452ca66d40a855a1c02f5784d2d91a3c611382054f28b1825a8a42997d64660f063c9187b6b6012f85f6927050a6b0872753e16c94c270c8ad094942c3312ab075a3b5a7a1893752dba28b0085345e85ee99ce4e01285bad115ba1b57f0139d8e6477089ecf449919373f77ac29d6c02f83656dc555da8ea885aaafd8913c1cb7cac560cc8841b774efa205c9c9fd10374e63b25945246098ec9a20a2b658a1b9f287819194c084de58497e08bc8cf0769ce771927ccc4eac553ea939187580555cbb349cb7ba993d4f6ad0ac225f8217a72f1fec97b72b1ec09751b22f2761787e873ca798c8aaec79a47c3c069bca6ee9ccafd60b897ce9f846344e2f049391fc6195abdbd10fff585f8a777e06dccdfc6fc95318f7dcdabe136dfb4506654f6846043255d1af3fe37',NULL,0,2,1700000006000);
INSERT INTO revisions VALUES('d30d269b-89db-4133-ae72-4528ca76224d','17d85edd-8941-4a01-ad58-832ff8361c13','794ba447-382d-4b90-864a-3a054804cfe8',7,'style of the lines, Lines',NULL,X'ab562a2ea9cc4955b28a36d0514acecf2b294a2caa548ad551cac9cc83881ac4d60200','794ba447-382d-4b90-864a-3a054804cfe8',1,2,1700000008000);
INSERT INTO revisions VALUES('c1648f91-c953-4709-9788-ea85de37b8e9','17d85edd-8941-4a01-ad58-832ff8361c13','d30d269b-89db-4133-ae72-4528ca76224d',8,'words in bar 1, Melody',NULL,X'ab56caa92cca4c2e56b2aa563250b28aae564a4a2c52b232d4514a4a4d2c01334a522b4a94ac94821233f3d48b151e35cc29cecf4b7fd43057a9365647291e2495a8545b0b00','d30d269b-89db-4133-ae72-4528ca76224d',2,2,1700000009000);
INSERT INTO revisions VALUES('45ae6b48-b656-4b67-9b86-e553aaea9b93','17d85edd-8941-4a01-ad58-832ff8361c13','c1648f91-c953-4709-9788-ea85de37b8e9',9,'notes, Melody',NULL,X'ab56ca4dcdc94fa954b2aa563250b28aae564a4a2c52b232d4514a4a4d2c81338a95ac8c7494f2f24b5295ac949c4c946a6375940cb12837862b37d433856b7031056b882f51b2524a54aaad0500','c1648f91-c953-4709-9788-ea85de37b8e9',3,2,1700000010000);
INSERT INTO revisions VALUES('1de1b53a-98d1-4dbd-88b3-cac7dc23fa6a','17d85edd-8941-4a01-ad58-832ff8361c13','45ae6b48-b656-4b67-9b86-e553aaea9b93',10,'phrases, Melody',NULL,X'ab562ac8284a2c4e2d56b2aa5632b23254b28a2e292a4d8dadad0500','45ae6b48-b656-4b67-9b86-e553aaea9b93',4,2,1700000011000);
INSERT INTO revisions VALUES('aac92410-d26b-49e9-98bd-9dcfdfb4d909','17d85edd-8941-4a01-ad58-832ff8361c13','1de1b53a-98d1-4dbd-88b3-cac7dc23fa6a',11,'new chart Later, Chart',NULL,X'ed564d8fd33010fd2bd6bb7031aba61f147c5bb4cb720081805be9c14ddcc6ac6347b6b325ea46e287c09fe397a071b22d2096e5c429aa94daf2ccbcf1f8cdd31c1075340a021fb465ef9cdbb2578d3172d38223aaaa7610cf9ed0f27384c0b56a05bbfa6857e7eb8ff6965d55f2d392ddb2cb8abee7e97bb164b7e0c89d718d8798726c640810c84be70b7084d826c0dcd9e8a52720a3ad829870b2d1b90a10074c45467fc92b40ac0e086db5710602974b706c948c0162dead39422d2d44c6e19b147a3307878c100b8e4d0b81d858858e637e7fd0f3cd8351a7a7a8fb92c29632b0582a164bed0b266dc182ba513696cc6dd9c5125dc7b1d59f5541a01961af66dc36c6f0399ff37eb9ee38765ed7e16f361cb374b2e84f16e9f78bf71b7bf4c7e5949d4fd9c58c5dcdd8f319bb9cb35cd68e4d3084b9dfa0e3c8a53129615a3b5be8a89ded6b75ad6d41c57435382a5d6888274b8ead771544c2e6880e22a150058d9285b63bcacced2d444a1ec6b91a622b4d501c7b6d0bb7bf3b2abc2326f41b2248e250bf250a367e38ed78ff88af9571454b0085b241c7f627a21d1db06d8c013d8531e11ee4e8eaf7d1a764b39f0879f77a1dc7b5aa23c48a2aeecb369615a16ef5ee98134750f9502d72d8483facbc0a517a6aa0c102fc946fc6b1558a283804231696da16af434a2128ca60c251975e060531a7fc4254f67497a1c52c558f76e99dacda531574a54e4746dd2893a8b66b74943ec1f7de93b3a777d693b345c751359190576b6aa29729e681185d0d355f1de88a7d04457d911dfb67ca615d24dce77374fc77c3d9d1303b5b1c4d2f168934fd354f1a107da33a0ed37a9d873fa30eeaf44e6afb28b0ef5fbe066777dfbf7c4bf16e940f470a5b99aaf142fb10876e5efe8b5885cab9581ea5ea71366ad54336ffa448a3e08c82f380e0d0bbe6657f9b57322a3f303be370b154fe97c67e6ba4b618e795715e19e563948f715e19e795715e1905e73fcf2bddbafb01',NULL,0,2,1700000012000);
INSERT INTO revisions VALUES('45f0036c-0fb7-4332-ab59-f65ffa9613d0','17d85edd-8941-4a01-ad58-832ff8361c13','aac92410-d26b-49e9-98bd-9dcfdfb4d909',12,'chart text, Chart',NULL,X'ab562a49ad2851b28a36d051ca4eadb452708fc9ab517057a8517056a851705100b3956275949233f23393538b95acaa958cac0cc11a0c740c6275944c9078b53a4a699915a929205586a8e2e9459905c5e8e23a4ac65854f9e71154979c9f97925992999f073632be44c94a2951494729de005951596a51314c890188a0891f70bb9a3877d6eac0c46b6b01','aac92410-d26b-49e9-98bd-9dcfdfb4d909',1,2,1700000013000);
INSERT INTO revisions VALUES('0658dcb5-dfd7-48c5-bac1-0573a52ffa22','17d85edd-8941-4a01-ad58-832ff8361c13','45f0036c-0fb7-4332-ab59-f65ffa9613d0',13,'kept as Second, Colour',NULL,X'7592cb6ac3301045ffe5ae879294165a7d4137a58b2e43288a358e45279291e42426e8dfcbd8ce63d3dd0cf3b8e78e74c19153f63164980bd6309b0b823d300cbeb989c181600bcc3ba189128704f34cd8d99c61d0743169432ea3e844134349368d20880f0cb322edf10debf64a68fd99dd1cee93eff343f815e6a4b122d71ed5f76586db6c09c2d6f9b057d2780a30611021488c3d4c6b2533e1e4838ba76bc9a5a81873a2749381392d7c2e435aaa9566339f2cd18d2ae038645fc60797b701b48308d48d48fe47b9c4febba40976fd708d8703fc725fd45625a46e2cdd41555bbfbf311132378b7b1dd8d9b4448973b1a9c05c3b4077de35a16516c59c971176dcf9e03ef3849059095684be4b3633cc8bf2e5c2e1ee6579dfa0d7d32c38cdf8a457f0d3e7584ac24796e9ebec075f6c9ae4e7e9d5d3dbb57bf5f45a0987a1a8b23ee46efc98765e6aad5bc28f5ab1a8f50f','45f0036c-0fb7-4332-ab59-f65ffa9613d0',2,2,1700000014000);
INSERT INTO revisions VALUES('dd225a97-4451-4248-b26a-2b5ef094f908','17d85edd-8941-4a01-ad58-832ff8361c13','0658dcb5-dfd7-48c5-bac1-0573a52ffa22',14,'tempo 88',NULL,X'ab562a49cd2dc857b28a36d0b1b088ad0500','0658dcb5-dfd7-48c5-bac1-0573a52ffa22',3,2,1700000015000);
INSERT INTO revisions VALUES('c862f3b2-daa9-4317-8fcf-b40e98f70f53','17d85edd-8941-4a01-ad58-832ff8361c13','dd225a97-4451-4248-b26a-2b5ef094f908',15,'another chart, Chart',NULL,X'ed564d8fdb3610fd2bc4bbf4c22efc596f79db64b7db438216496f8e0fb4445bec52a44052eb08b680fc90f6cfe597144369e56c93cde6905e0ac1804c8133f386336f9e7844d4d12808fca12d7be3dc8ebdaa8d91db061c51959583b8bca4e5fb08813bd50876fbceaeaf36efec89dd96f2cf153bb19b929e57e979bd62277064ceb8da43cc38b63204086485f33938426c1260e66cf4d21390d156414c38d9e84c05882366624a7fc92b40ac8f084db9750602372b706c958c0162d16e3842252dc494c3d729f476010e1921961cdb0602b1b60a2dc7e2e9a057db67a3cece510f05852d6460b1502c16dae74cda9c0575af6c2c98dbb1eb15da9663a7dfab9c40a784bd9e735b1bc3177cc1bbe5a6e5d87b5d85afd970ccd3ceb2db59a6df23efdfece08f9b19bb9ab1eb39bb9db3177376b36099ac1c9ba00ff3b441cb91496352c2b47636d7513bdbd5ea4edb9c8ae92a70943ad7103fad3876de9510099b233a88844215344ae6daee293377b010297918e72a889d3441711cb4cddde1612bf78e98d0bd10411287ba57a260edfbdd96774d7cad8ccb1b02c8950d3a369f106d70c0ae3606d40a63c213c8d1556fa34fc94e3f21e443f75a8e3b5545883555dc174d2c4a42dde9fd90134750595f2d72d84adfafbc0a517a1aa0de02fc9cef9463a71451b00f462c2cb4cd5f8794425094c184a32abc0c0a6241f985a8ecf92cfd8859aa1ebda53e5975a02ae8529db78cba5726516d5feb287d82efbc2717970fd6938b65cb51d69190d71b1aa25f53cc2331baec6bbe3ed211bb088ae6623acccf8cc3ba48b82f1668f9bf0de783e1f46239985e2f1369ba639e3520fa5ab51ca6f13a0b5f46edd5e98dd4f687c03e7ef82b38bbfff8e1ef14ef5ef93050d8ca548d5fb40fb19fe6d5b78855289d8bc520553f4e47ad7acee69b1469149c51709e111cea6b5674a7f9dd486d7b664f385c2c947f34d8af64541e9fdd574eec969dd84bba9eb0b4fe0e3794f651b31ec6e211fbbfc6ee91adff4bb68e9fc7cf3e8fe3a08c83f20559e703ddde2a6a78cfb79f47651e09f7dfdc23da4dfb0f',NULL,0,2,1700000016000);
INSERT INTO revisions VALUES('9a676537-8f07-46e1-8d6d-4307e71259ea','cd206d32-b497-4a98-96b7-fdd28253a976',NULL,0,'new tune',NULL,X'7592316fdc300c85ff4af06621b8006dd16aedd02e410b742c3ac8167d164a4b8644e76238feef05255fee966ea2f828be8fd40609c2048b6f29120c845e05166f0f5f1fde60d0274e4b863d1974ae1458f463ca1e0645d65a57a6946484018748552834cd09f6cb27a3e2d05381dd768321bc926fc7730e73b93bfe882de81df355f342b984140becef3f6a24fa20b798c9f910cfb01bd225c2c685d980539a6107c7850c2e21fa74b9a67c56c023e85394cad542855ef291dd4d637c264e7ed5069e6209b2dec1bf17605898a16ccce53f9d25cdbf2457b34f7763ba1bc75f9a45b176833cae324eda7508e7774f0685fa835e0b3a978f53a6222eebca0e05cccdef93c140c46ab33d66d0d118a27f2ed5422175703298c7ec0ac17e507f4528de588eb5c7f63d3a17bd4674d12984896e29a617d2196c382f415caeed5bf5e9f1f3557d7afcb81b4c8b68675d64b77eaf6f6ebbde1f33d744f37460f29a437ffd0a6303fec92e28ae93ca9064a45c25fb3f',NULL,0,2,1700000000001);
INSERT INTO revisions VALUES('f8ff8d7f-861c-4333-a041-e5194386e56c','d361f6ce-6fb6-487f-b355-998a18c1e2e3',NULL,0,'new tune',NULL,X'7552cb6edc300cfc97390bc12ed01689bea0972005722c72d05af45a282d19129d8d61f8df034adec7a5378e391467865e21419860f1e63d0c84be041630e812a739c31e0c4eae14587443caca29b2d48932a624030c3844aa44a1714ab02fbf8c9243470576dd0cfaf045be95e71ca6f250bec5063ac77ce57c522e21c502fbf74385441fe48e999c0ff10cbb225d226c9c990d38a509b6775cc8e012a24f976bcbe7a4fa1ae85294eaab41f53be7bdbb99e6f19538f94517788a25c8f260fe36807e66867a632effd92c697a975cc51e1f627a88e31f4da2b636833c2c328cbab50fe79b268342ddee5e074e2eef55a6222eebb57606cc5defd1a0276295d91e3338d110a27f2d5542215570309886ec0ac1fe507d4528debdec678f9a9ea2e815d145530823dd5b4c9fa419ac38cf415caeebdbf4e1e9f9ca3e3cfddc0cc65974b31ef2b4fcae6fae9b7edf33d746d3b4dbe42587eefa2b0ccdf01f7641ed3aa91e920c942b65fb06',NULL,0,2,1700000000003);
CREATE INDEX `arrangements_of_tune` ON `arrangements` (`tune_id`);
CREATE INDEX `charts_of_tune` ON `charts` (`tune_id`);
CREATE INDEX `tunes_by_touch` ON `tunes` (`deleted_at`,`touched_at`);
CREATE INDEX `writes_by_time` ON `writes` (`at`);
CREATE INDEX `passes_by_day` ON `passes` (`deleted_at`,`day`,`at`);
CREATE INDEX `passes_of_item` ON `passes` (`tune_id`,`kind`,`item`,`at`);
CREATE INDEX `practised_by_due` ON `practised` (`due`);
CREATE INDEX `layouts_of_tune` ON `layouts` (`tune_id`,`deleted_at`);
CREATE INDEX `tunes_of_set` ON `set_tunes` (`set_id`,`place`);
CREATE INDEX `revisions_of_tune` ON `revisions` (`tune_id`,`sequence`);
CREATE INDEX `revisions_by_parent` ON `revisions` (`parent_id`);
CREATE INDEX `revisions_by_basis` ON `revisions` (`basis_id`);
COMMIT;
